/**
 * The program's own words on screen in other languages, from memory. Each row: German, Spanish, French, Italian, Dutch, Polish, Portuguese, Turkish, Arabic.
 */
const languages = ['de', 'es', 'fr', 'it', 'nl', 'pl', 'pt', 'tr', 'ar'] as const;
const rows = {
  'Get ready': ['Bereit machen', 'Prepárate', 'Prépare-toi', 'Preparati', 'Maak je klaar', 'Przygotuj się', 'Prepara-te', 'Hazır ol', 'استعد'],
  Work: ['Los', 'Trabaja', 'Travail', 'Lavoro', 'Werk', 'Praca', 'Trabalho', 'Çalış', 'تمرين'],
  Rest: ['Pause', 'Descansa', 'Repos', 'Riposo', 'Rust', 'Odpoczynek', 'Descanso', 'Dinlen', 'راحة'],
  'Change sides': ['Seite wechseln', 'Cambia de lado', 'Change de côté', 'Cambia lato', 'Wissel van kant', 'Zmiana strony', 'Troca de lado', 'Taraf değiştir', 'بدّل الجانب'],
  Hold: ['Halten', 'Mantén', 'Tiens', 'Tieni', 'Houd vast', 'Wytrzymaj', 'Mantém', 'Tut', 'اثبت'],
  Watch: ['Zuschauen', 'Mira', 'Regarde', 'Guarda', 'Kijk', 'Patrz', 'Observa', 'İzle', 'شاهد'],
  Think: ['Überlegen', 'Piensa', 'Réfléchis', 'Pensa', 'Denk na', 'Pomyśl', 'Pensa', 'Düşün', 'فكّر'],
  'Your score': ['Dein Ergebnis', 'Tu resultado', 'Ton score', 'Il tuo punteggio', 'Je score', 'Twój wynik', 'O teu resultado', 'Skorun', 'نتيجتك'],
  Ready: ['Bereit', 'Listos', 'Prêt', 'Pronti', 'Klaar', 'Gotowi', 'Prontos', 'Hazır', 'جاهز'],
  Now: ['Jetzt', 'Ahora', 'Maintenant', 'Ora', 'Nu', 'Teraz', 'Agora', 'Şimdi', 'الآن'],
  Finish: ['Zum Schluss', 'Al final', 'À la fin', 'Alla fine', 'Tot slot', 'Na koniec', 'No fim', 'Bitiş', 'النهاية'],
  'All the time': ['Die ganze Zeit', 'Todo el tiempo', 'Tout le temps', 'Sempre', 'De hele tijd', 'Cały czas', 'O tempo todo', 'Her zaman', 'طوال الوقت'],
  Go: ['Los', 'Ya', 'Vas-y', 'Via', 'Ga', 'Start', 'Já', 'Başla', 'انطلق'],
  Question: ['Frage', 'Pregunta', 'Question', 'Domanda', 'Vraag', 'Pytanie', 'Pergunta', 'Soru', 'سؤال'],
  Answer: ['Antwort', 'Respuesta', 'Réponse', 'Risposta', 'Antwoord', 'Odpowiedź', 'Resposta', 'Cevap', 'الجواب'],
  'Watch again': ['Noch einmal zuschauen', 'Mira otra vez', 'Regarde encore', 'Guarda ancora', 'Kijk nog eens', 'Popatrz jeszcze raz', 'Observa outra vez', 'Tekrar izle', 'شاهد مرة أخرى'],
  Halfway: ['Halbzeit', 'Mitad', 'Mi-temps', 'Metà', 'Halverwege', 'Połowa', 'Metade', 'Yarısı', 'المنتصف'],
  'Last five': ['Letzte fünf', 'Últimos cinco', 'Cinq dernières', 'Ultimi cinque', 'Laatste vijf', 'Ostatnie pięć', 'Últimos cinco', 'Son beş', 'آخر خمس'],
  Next: ['Danach', 'Después', 'Ensuite', 'Poi', 'Daarna', 'Następnie', 'A seguir', 'Sonra', 'التالي'],
  'Last one': ['Zum letzten Mal', 'La última', 'La dernière', 'L’ultima', 'De laatste', 'Ostatni raz', 'A última', 'Sonuncu', 'الأخير'],
  listen: ['zuhören', 'escucha', 'écoute', 'ascolta', 'luister', 'słuchaj', 'ouve', 'dinle', 'استمع'],
  'the answer': ['die Antwort', 'la respuesta', 'la réponse', 'la risposta', 'het antwoord', 'odpowiedź', 'a resposta', 'cevap', 'الجواب'],
  left: ['links', 'izquierda', 'gauche', 'sinistra', 'links', 'lewa', 'esquerda', 'sol', 'يسار'],
  right: ['rechts', 'derecha', 'droite', 'destra', 'rechts', 'prawa', 'direita', 'sağ', 'يمين'],
  Left: ['Links', 'Izquierda', 'Gauche', 'Sinistra', 'Links', 'Lewa', 'Esquerda', 'Sol', 'يسار'],
  Right: ['Rechts', 'Derecha', 'Droite', 'Destra', 'Rechts', 'Prawa', 'Direita', 'Sağ', 'يمين'],
  of: ['von', 'de', 'sur', 'di', 'van', 'z', 'de', '/', 'من'],
  'to go': ['noch', 'faltan', 'restent', 'mancano', 'te gaan', 'zostało', 'faltam', 'kaldı', 'متبقٍّ'],
  'each side': ['jede Seite', 'cada lado', 'chaque côté', 'ogni lato', 'elke kant', 'każda strona', 'cada lado', 'her taraf', 'كل جانب'],
  Set: ['Satz', 'Serie', 'Série', 'Serie', 'Serie', 'Seria', 'Série', 'Set', 'مجموعة'],
  Time: ['Mal', 'Vez', 'Fois', 'Volta', 'Keer', 'Raz', 'Vez', 'Kez', 'مرة'],
  'Does not count': ['Zählt nicht', 'No cuenta', 'Ne compte pas', 'Non vale', 'Telt niet', 'Nie liczy się', 'Não conta', 'Sayılmaz', 'لا تُحتسب'],
  'You need': ['Du brauchst', 'Necesitas', 'Il te faut', 'Ti serve', 'Je hebt nodig', 'Potrzebujesz', 'Precisas de', 'Gerekenler', 'تحتاج إلى'],
  'The floor': ['Der Boden', 'El suelo', 'Le sol', 'Il pavimento', 'De vloer', 'Podłoga', 'O chão', 'Zemin', 'الأرضية'],
  Easier: ['Leichter', 'Más fácil', 'Plus facile', 'Più facile', 'Makkelijker', 'Łatwiej', 'Mais fácil', 'Daha kolay', 'أسهل'],
  Harder: ['Schwerer', 'Más difícil', 'Plus difficile', 'Più difficile', 'Moeilijker', 'Trudniej', 'Mais difícil', 'Daha zor', 'أصعب'],
  Then: ['Danach', 'Después', 'Ensuite', 'Poi', 'Daarna', 'Potem', 'Depois', 'Sonra', 'ثم'],
  Done: ['Geschafft', 'Hecho', 'Fini', 'Fatto', 'Klaar', 'Gotowe', 'Feito', 'Bitti', 'تم'],
  'Breathe in': ['Einatmen', 'Inspira', 'Inspire', 'Inspira', 'Adem in', 'Wdech', 'Inspira', 'Nefes al', 'شهيق'],
  'Breathe out': ['Ausatmen', 'Espira', 'Expire', 'Espira', 'Adem uit', 'Wydech', 'Expira', 'Nefes ver', 'زفير'],
  'Once more': ['Noch einmal', 'Una vez más', 'Encore une fois', 'Ancora una volta', 'Nog een keer', 'Jeszcze raz', 'Mais uma vez', 'Bir kez daha', 'مرة أخرى'],
  'Pause and practise': ['Anhalten und üben', 'Pausa y practica', 'Pause et entraîne-toi', 'Ferma e prova', 'Pauzeer en oefen', 'Zatrzymaj i ćwicz', 'Pausa e pratica', 'Durdur ve çalış', 'أوقف وتدرّب'],
  'Write it down': ['Schreib es auf', 'Anótalo', 'Note-le', 'Scrivilo', 'Schrijf het op', 'Zapisz', 'Aponta', 'Yaz', 'اكتبها'],
  'How many?': ['Wie viele?', '¿Cuántas?', 'Combien ?', 'Quante?', 'Hoeveel?', 'Ile?', 'Quantas?', 'Kaç tane?', 'كم؟'],
  'How long did it take?': ['Wie lange hat es gedauert?', '¿Cuánto tardaste?', 'Combien de temps ?', 'Quanto tempo?', 'Hoe lang duurde het?', 'Ile to trwało?', 'Quanto tempo levou?', 'Ne kadar sürdü?', 'كم استغرق؟'],
  'Your longest run?': ['Deine längste Serie?', '¿Tu racha más larga?', 'Ta plus longue série ?', 'La serie più lunga?', 'Je langste reeks?', 'Najdłuższa seria?', 'A tua maior série?', 'En uzun serin?', 'أطول سلسلة؟'],
  'Add up your points': ['Zähl deine Punkte', 'Suma tus puntos', 'Compte tes points', 'Somma i punti', 'Tel je punten op', 'Zsumuj punkty', 'Soma os pontos', 'Puanlarını topla', 'اجمع نقاطك'],
  'Your left': ['Deine linke Seite', 'Tu izquierda', 'Ta gauche', 'La tua sinistra', 'Jouw links', 'Twoja lewa', 'A tua esquerda', 'Senin solun', 'يسارك'],
  'Your right': ['Deine rechte Seite', 'Tu derecha', 'Ta droite', 'La tua destra', 'Jouw rechts', 'Twoja prawa', 'A tua direita', 'Senin sağın', 'يمينك'],
  'as in a mirror': ['wie im Spiegel', 'como en un espejo', 'comme dans un miroir', 'come allo specchio', 'als in een spiegel', 'jak w lustrze', 'como num espelho', 'aynadaki gibi', 'كما في المرآة'],
  'on the left here': ['hier links', 'aquí a la izquierda', 'ici à gauche', 'qui a sinistra', 'hier links', 'tu po lewej', 'aqui à esquerda', 'burada solda', 'هنا يسارًا'],
  'on the right here': ['hier rechts', 'aquí a la derecha', 'ici à droite', 'qui a destra', 'hier rechts', 'tu po prawej', 'aqui à direita', 'burada sağda', 'هنا يمينًا'],
  'the near side': ['die nahe Seite', 'el lado cercano', 'le côté proche', 'il lato vicino', 'de kant dichtbij', 'bliższa strona', 'o lado próximo', 'yakın taraf', 'الجانب القريب'],
  'the far side': ['die ferne Seite', 'el lado lejano', 'le côté éloigné', 'il lato lontano', 'de verre kant', 'dalsza strona', 'o lado afastado', 'uzak taraf', 'الجانب البعيد'],
} as const satisfies Record<string, readonly [string, string, string, string, string, string, string, string, string]>;

/** A word of the program's own, in English. */
export type OwnWord = keyof typeof rows;
export const ownWords = Object.keys(rows) as OwnWord[];

/** What the program's own words are called in a language: `de-AT` as `de`. Unknown languages stay in English. */
export function ownWord(word: OwnWord, language: string): string {
  const at = (languages as readonly string[]).indexOf(language.split('-')[0] ?? '');
  return rows[word][at] ?? word;
}

/** Says the program's own words in one language. */
export type Say = (word: OwnWord) => string;
