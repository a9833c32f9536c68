import { qrPath } from '@zest/core/formats';
import { sayCode } from '@zest/core/results';
import { paperWord, type PaperWord, type Values, teacherText } from '@zest/core/words';
import { Path, Svg, View } from '@react-pdf/renderer';
import { LINE, Sheet, styles, toPdf, Words } from './sheet.tsx';
import { tag } from './tagged.ts';

/** A QR code, `side` points wide. */
function Qr({ text, side, says }: { text: string; side: number; says: string }) {
  const { size, path } = qrPath(text);
  return (
    <Svg
      viewBox={`0 0 ${size} ${size}`}
      style={{ width: side, height: side }}
      {...tag('Figure', { alt: says })}
    >
      <Path d={path} fill="#000000" />
    </Svg>
  );
}

export interface StudentCard {
  nickname: string;
  group: string;
  code: string;
  /** Opens the page to go on from, both codes filled in. */
  link: string;
}

const CARD_WIDTH = 255;
const CARD_QR = 84;

/**
 * A class's cards to cut out, one for each student: nickname, code, and a QR code that fills both
 * in.
 */
export function classCardsPdf(
  name: string,
  classCode: string,
  address: string,
  cards: readonly StudentCard[],
): Promise<Buffer> {
  return toPdf(
    <Sheet title={name} place={teacherText('cards.cut-out')} size={10}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {cards.map(({ nickname, group, code, link }) => (
          <View
            key={code}
            wrap={false}
            style={{
              width: CARD_WIDTH,
              flexDirection: 'row',
              gap: 8,
              padding: 8,
              borderWidth: 1,
              borderStyle: 'dashed',
              borderColor: LINE,
            }}
          >
            <Qr text={link} side={CARD_QR} says={teacherText('cards.opens', { nickname })} />
            <View style={{ flex: 1 }}>
              <Words style={{ fontSize: 15, fontWeight: 700, lineHeight: 1.15 }}>{nickname}</Words>
              <Words style={styles.soft}>{group}</Words>
              <Words style={{ fontSize: 17, fontWeight: 700, lineHeight: 1.15, marginTop: 4 }}>
                {sayCode(code)}
              </Words>
              <Words style={styles.soft}>
                {teacherText('cards.class', { code: sayCode(classCode) })}
              </Words>
              <Words style={styles.soft}>{address}</Words>
            </View>
          </View>
        ))}
      </View>
    </Sheet>,
  );
}

export interface LinkCard {
  title: string;
  place: string;
  link: string;
  /** When it is open, in words; empty: always. */
  open: string;
  /** The two codes to read out, and where they are typed; null for a link without a class. */
  codes: { classCode: string; lessonCode: string; address: string } | null;
  /** The lesson's language, BCP 47. */
  language: string;
}

/** One link on a sheet to hang up or to send home. */
export function linkCardPdf({
  title,
  place,
  link,
  open,
  codes,
  language,
}: LinkCard): Promise<Buffer> {
  const say = (word: PaperWord, values?: Values) => paperWord(language, word, values);
  return toPdf(
    <Sheet title={title} place={place} size={16} language={language}>
      <View style={{ alignItems: 'center', marginTop: 20 }}>
        <Qr text={link} side={300} says={say('link.opens', { link })} />
      </View>
      <Words style={{ textAlign: 'center', marginTop: 10 }}>{say('link.point')}</Words>
      {codes && (
        <View style={{ alignItems: 'center', marginTop: 24 }}>
          <Words>{say('link.or', { address: codes.address })}</Words>
          <Words style={{ fontSize: 28, fontWeight: 700, lineHeight: 1.15 }}>
            {say('link.class', { code: sayCode(codes.classCode) })}
          </Words>
          <Words style={{ fontSize: 28, fontWeight: 700, lineHeight: 1.15 }}>
            {say('link.lesson', { code: sayCode(codes.lessonCode) })}
          </Words>
        </View>
      )}
      <Words style={{ ...styles.soft, textAlign: 'center', marginTop: 24 }}>{open}</Words>
      <Words style={{ ...styles.soft, textAlign: 'center', fontSize: 9, marginTop: 12 }}>
        {link}
      </Words>
    </Sheet>,
  );
}
