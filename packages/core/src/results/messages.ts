import type { Line } from './figures.ts';

/**
 * What a family can be written: somebody beat their own best, kept at it, or has not been heard of.
 */
export type MessageKind = 'improved' | 'tried' | 'quiet';

/** Places for what differs: who, at what, from what to what. */
type Texts = Record<MessageKind, string>;

/**
 * Written from memory, to be read by somebody who speaks the language before it is sent; {name}
 * stands where no language bends it.
 */
const texts = {
  en: {
    improved: 'Well practised, {name}! “{title}” went from {from} to {to}. What helped you most?',
    tried: 'Thank you for doing the lesson, {name}. Keeping at it is what counts.',
    quiet:
      'Hello {name}, we have not heard from you for a while. Is there anything that would make the lessons easier for you at home?',
  },
  de: {
    improved: 'Gut geübt, {name}! „{title}“: von {from} auf {to}. Was hat dir am meisten geholfen?',
    tried: 'Danke, dass du mitgemacht hast, {name}. Dranbleiben ist das, was zählt.',
    quiet:
      'Hallo {name}, wir haben länger nichts von dir gehört. Gibt es etwas, was die Stunden zu Hause leichter machen würde?',
  },
  es: {
    improved: '¡Buen trabajo, {name}! «{title}»: de {from} a {to}. ¿Qué te ha ayudado más?',
    tried: 'Gracias por hacer la clase, {name}. Lo que cuenta es seguir practicando.',
    quiet:
      'Hola, {name}: hace tiempo que no sabemos de ti. ¿Hay algo que te haría más fáciles las clases en casa?',
  },
  fr: {
    improved:
      'Bien travaillé, {name} ! « {title} » : de {from} à {to}. Qu’est-ce qui t’a le plus aidé ?',
    tried: 'Merci d’avoir fait la séance, {name}. Continuer, c’est ce qui compte.',
    quiet:
      'Bonjour {name}, nous n’avons pas eu de tes nouvelles depuis un moment. Y a-t-il quelque chose qui rendrait les séances plus faciles à la maison ?',
  },
  it: {
    improved:
      'Bravo per l’impegno, {name}! «{title}»: da {from} a {to}. Che cosa ti ha aiutato di più?',
    tried: 'Grazie per aver fatto la lezione, {name}. Quello che conta è continuare.',
    quiet:
      'Ciao {name}, è da un po’ che non abbiamo tue notizie. C’è qualcosa che renderebbe più facili le lezioni a casa?',
  },
  nl: {
    improved:
      'Goed geoefend, {name}! “{title}”: van {from} naar {to}. Wat heeft je het meest geholpen?',
    tried: 'Bedankt dat je de les hebt gedaan, {name}. Volhouden is wat telt.',
    quiet:
      'Hallo {name}, we hebben al een tijdje niets van je gehoord. Is er iets dat de lessen thuis makkelijker zou maken?',
  },
  pl: {
    improved: 'Dobra robota, {name}! „{title}”: z {from} na {to}. Co pomogło najbardziej?',
    tried: '{name}, dziękujemy za udział w lekcji. Liczy się to, żeby ćwiczyć dalej.',
    quiet: 'Cześć, {name}! Dawno nie mieliśmy wiadomości. Czy coś ułatwiłoby ćwiczenie w domu?',
  },
  pt: {
    improved: 'Bom trabalho, {name}! «{title}»: de {from} para {to}. O que mais te ajudou?',
    tried: 'Obrigado por fazeres a aula, {name}. O que conta é continuar.',
    quiet:
      'Olá, {name}! Há algum tempo que não temos notícias tuas. Há alguma coisa que tornasse as aulas em casa mais fáceis?',
  },
  tr: {
    improved: 'Güzel çalışma, {name}! “{title}”: {from} → {to}. Sana en çok ne yardımcı oldu?',
    tried: 'Dersi yaptığın için teşekkürler, {name}. Önemli olan devam etmek.',
    quiet:
      'Merhaba {name}, bir süredir senden haber alamadık. Evde dersleri kolaylaştıracak bir şey var mı?',
  },
} satisfies Record<string, Texts>;
export type MessageLanguage = keyof typeof texts;
export const messageLanguages = Object.keys(texts) as MessageLanguage[];

/**
 * The language of a family if there are texts in it; English if not.
 * @param tag BCP 47; null: the lesson's own
 */
export function messageLanguage(tag: string | null): MessageLanguage {
  const base = tag?.split('-')[0]?.toLowerCase() ?? 'en';
  return messageLanguages.find((language) => language === base) ?? 'en';
}

/** A figure as every language reads it: "0.8/s", "12.4 s", "15". */
export function plainFigure(
  { measure, isRate }: Pick<Line, 'measure' | 'isRate'>,
  compared: number,
  language: MessageLanguage,
): string {
  const figure = new Intl.NumberFormat(language, { maximumFractionDigits: isRate ? 2 : 1 }).format(
    compared,
  );
  if (isRate) return `${figure}/s`;
  return measure === 'time' ? `${figure} s` : figure;
}

/** A message ready to be sent. */
export function messageTo(
  language: MessageLanguage,
  kind: MessageKind,
  values: Partial<Record<'name' | 'title' | 'from' | 'to', string>>,
): string {
  return texts[language][kind].replace(
    /\{(name|title|from|to)\}/g,
    (_all, key: 'name' | 'title' | 'from' | 'to') => values[key] ?? '',
  );
}
