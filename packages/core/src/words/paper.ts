import ar from './paper/ar.json' with { type: 'json' };
import de from './paper/de.json' with { type: 'json' };
import en from './paper/en.json' with { type: 'json' };
import es from './paper/es.json' with { type: 'json' };
import fr from './paper/fr.json' with { type: 'json' };
import it from './paper/it.json' with { type: 'json' };
import nl from './paper/nl.json' with { type: 'json' };
import pl from './paper/pl.json' with { type: 'json' };
import pt from './paper/pt.json' with { type: 'json' };
import tr from './paper/tr.json' with { type: 'json' };
import { sayFrom } from './catalogue.ts';

/** A word of the program's own in files and prints of a lesson. */
export type PaperWord = keyof typeof en;

/** What the program says in files and prints itself, in the lesson's language. */
export const paperWord = sayFrom<PaperWord>(en, { ar, de, es, fr, it, nl, pl, pt, tr });
