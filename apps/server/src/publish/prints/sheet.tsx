import { paperWord } from '@zest/core/words';
import { Document, Page, StyleSheet, Text, View, type Styles } from '@react-pdf/renderer';
import { useId, type ReactElement, type ReactNode } from 'react';
import { printable, printFonts } from './fonts.ts';
import { tag, taggedPdf, type Role } from './tagged.ts';

export const INK = '#2a2016';
export const SOFT = '#5d4f40';
export const LINE = '#d8c8ae';
const TITLE_SCALE = 1.8;

export const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    borderBottomWidth: 0.5,
    borderBottomColor: LINE,
    paddingVertical: 1.5,
  },
  bold: { fontWeight: 700 },
  soft: { color: SOFT },
});

export type Style = Styles[string];

/** A piece of text as it can be printed; nothing where nothing is left of it. */
export function Words({
  children,
  style,
  render,
  role = 'P',
}: {
  children?: string;
  style?: Style;
  render?: (page: { pageNumber: number; totalPages: number }) => string;
  role?: Role;
}) {
  if (render) return <Text {...(style && { style })} render={render} fixed />;
  const text = printable(children ?? '');
  return text === '' ? null : (
    <Text {...(style && { style })} {...tag(role)}>
      {text}
    </Text>
  );
}

export interface SheetProps {
  title: string;
  /** One line below the title; empty for none. */
  place: string;
  size: number;
  /** The language of its texts; English where nothing else is said. */
  language?: string;
  children: ReactNode;
  /** Told of the number of pages once it is known. */
  onPages?: (count: number) => void;
}

/** An A4 sheet with its title, and a foot that numbers pages where there are several. */
export function Sheet({ title, place, size, language = 'en', children, onPages }: SheetProps) {
  return (
    <Document title={printable(title)} language={language}>
      {/* A list of families is what the library takes; its types know only one. */}
      <Page
        size="A4"
        style={{
          padding: 34,
          paddingBottom: 40,
          fontSize: size,
          lineHeight: 1.3,
          color: INK,
          fontFamily: printFonts as unknown as string,
        }}
      >
        <Words
          role="H1"
          style={{ fontSize: size * TITLE_SCALE, fontWeight: 700, lineHeight: 1.15 }}
        >
          {title}
        </Words>
        <Words style={styles.soft}>{place}</Words>
        <View style={{ marginTop: size * 0.6 }}>{children}</View>
        <Words
          style={{
            position: 'absolute',
            bottom: 18,
            left: 34,
            right: 34,
            fontSize: 8,
            color: SOFT,
            textAlign: 'right',
          }}
          render={({ pageNumber, totalPages }) => {
            onPages?.(totalPages);
            return totalPages > 1
              ? paperWord(language, 'page', { n: pageNumber, all: totalPages })
              : ' ';
          }}
        />
      </Page>
    </Document>
  );
}

export function Heading({ children, size }: { children: string; size: number }) {
  return (
    <Words
      role="H2"
      style={{
        fontSize: size * 1.15,
        fontWeight: 700,
        marginTop: size * 0.7,
        marginBottom: size * 0.2,
      }}
    >
      {children}
    </Words>
  );
}

export interface Column<T> {
  name: string;
  /** Part of the width. */
  part: number;
  text: (row: T) => string;
  style?: (row: T) => Style;
}

/** A table; its head is repeated on every page, rows are not cut in two. */
export function Table<T>({ columns, rows }: { columns: readonly Column<T>[]; rows: readonly T[] }) {
  const cell = (part: number) => ({ flexGrow: part, flexBasis: 0, paddingRight: 5 });
  const id = useId();
  return (
    <View {...tag('Table', { part: id })}>
      <View
        style={{ ...styles.row, borderBottomWidth: 1, borderBottomColor: INK }}
        fixed
        {...tag('TR', { part: `${id} head` })}
      >
        {columns.map(({ name, part }) => (
          <Text key={name} style={{ ...cell(part), ...styles.bold }} {...tag('TH')}>
            {name}
          </Text>
        ))}
      </View>
      {rows.map((row, i) => (
        <View key={i} style={styles.row} wrap={false} {...tag('TR')}>
          {columns.map(({ name, part, text, style }) => (
            <Text key={name} style={{ ...cell(part), ...style?.(row) }} {...tag('TD')}>
              {printable(text(row))}
            </Text>
          ))}
        </View>
      ))}
    </View>
  );
}

/** A list whose lines each have something before them that only adorns. */
export function List({
  lines,
  mark,
  style,
}: {
  lines: readonly string[];
  mark: ReactNode;
  style?: Style;
}) {
  return (
    <View {...tag('L')}>
      {lines.map((line) => (
        <View
          key={line}
          wrap={false}
          style={{ flexDirection: 'row', alignItems: 'center', ...style }}
          {...tag('LI')}
        >
          {mark}
          <View style={{ flex: 1 }}>
            <Words role="LBody">{line}</Words>
          </View>
        </View>
      ))}
    </View>
  );
}

/** Renders a sheet as tagged PDF. */
export const toPdf = (sheet: ReactElement<SheetProps>): Promise<Buffer> => taggedPdf(sheet);
