import {
  isArgumentElement,
  isLiteralElement,
  isNumberElement,
  isPluralElement,
  isPoundElement,
  isSelectElement,
  parse,
  type MessageFormatElement,
} from '@formatjs/icu-messageformat-parser';

/** Everything a text is made of, however deep it stands. */
function elementsOf(text: string): MessageFormatElement[] {
  const all = (elements: readonly MessageFormatElement[]): MessageFormatElement[] =>
    elements.flatMap((element) =>
      isPluralElement(element) || isSelectElement(element)
        ? [element, ...Object.values(element.options).flatMap(({ value }) => all(value))]
        : [element],
    );
  return all(parse(text));
}

/** Names of the values a text takes, each once. */
export function takes(text: string): string[] {
  const names = elementsOf(text).flatMap((element) => {
    if (isLiteralElement(element) || isPoundElement(element)) return [];
    if (
      isArgumentElement(element) ||
      isNumberElement(element) ||
      isPluralElement(element) ||
      isSelectElement(element)
    )
      return [element.value];
    throw new Error(`Not expected in a text: ${element.type}`);
  });
  return [...new Set(names)].sort();
}

/** The forms of each plural in a text. */
export const pluralForms = (text: string): string[][] =>
  elementsOf(text)
    .filter(isPluralElement)
    .map(({ options }) => Object.keys(options));

/** What a text says itself, without the values put in. */
export const wordsSaid = (text: string): string =>
  elementsOf(text)
    .map((element) => (isLiteralElement(element) ? element.value : ' '))
    .join(' ');
