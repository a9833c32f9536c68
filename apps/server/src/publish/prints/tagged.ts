import type FontStore from '@react-pdf/font';
import { pdf } from '@react-pdf/renderer';
import layOut, { type DocumentNode, type SafeDocumentNode, type SafeNode } from '@react-pdf/layout';
import draw from '@react-pdf/render';
import PDFDocument from 'pdfkit';
import type { ReactElement } from 'react';
import { makeFonts } from './fonts.ts';

/** What a part of a print is (ISO 32000-1, 14.8.4), so that a reader aloud knows. */
export type Role =
  'H1' | 'H2' | 'P' | 'Table' | 'TR' | 'TH' | 'TD' | 'L' | 'LI' | 'LBody' | 'Figure';

interface Tag {
  role: Role;
  /**
   * The same on every page a part goes on over; what is repeated under it is drawn, and read once.
   */
  part?: string;
  /** What a figure shows, in words. */
  alt?: string;
}

/** Properties that say what a part is; the library's own types have no room for them. */
export const tag = (role: Role, more: Omit<Tag, 'role'> = {}): object => ({
  tag: { role, ...more },
});

const tagOf = ({ props }: SafeNode): Tag | undefined => (props as { tag?: Tag } | undefined)?.tag;
const isFixed = ({ props }: SafeNode) => (props as { fixed?: boolean } | undefined)?.fixed === true;

type Context = PDFKit.PDFDocument;
type Element = PDFKit.PDFStructureElement;

/**
 * Draws the pages the library has laid out, each part marked as what it is; what only adorns is
 * marked as that.
 */
class TaggedDrawing {
  readonly #parts = new Map<string, Element>();
  readonly #end: () => void;

  constructor(private readonly ctx: Context) {
    this.#end = ctx.end.bind(ctx);
    // The library ends a document with whatever it has drawn.
    ctx.end = () => undefined;
  }

  pages({ children = [] }: SafeDocumentNode): void {
    const root = this.ctx.struct('Document');
    this.ctx.addStructure(root);
    for (const page of children) {
      const { width = 0, height = 0 } = page.box ?? {};
      this.ctx.addPage({ size: [width, height], margin: 0 });
      this.#children(page, root);
    }
    for (const element of this.#parts.values()) element.end();
    root.end();
    this.#end();
  }

  #alone(node: SafeNode): void {
    draw(
      this.ctx as unknown as Parameters<typeof draw>[0],
      { type: 'DOCUMENT', props: {}, children: [node] } as unknown as SafeDocumentNode,
    );
  }

  #adorning(node: SafeNode): void {
    this.ctx.markContent('Artifact', { type: 'Layout' });
    this.#alone(node);
    this.ctx.endMarkedContent();
  }

  #children(node: SafeNode, parent: Element): void {
    this.ctx.save();
    if (node.box) this.ctx.translate(node.box.left ?? 0, node.box.top ?? 0);
    for (const child of (node.children ?? []) as SafeNode[]) this.#node(child, parent);
    this.ctx.restore();
  }

  #node(node: SafeNode, parent: Element): void {
    const nodeTag = tagOf(node);
    if (isFixed(node) && (!nodeTag?.part || this.#parts.has(nodeTag.part)))
      return this.#adorning(node);
    const isGroup = node.type === 'VIEW';
    if (isGroup) this.#adorning({ ...node, children: [] } as unknown as SafeNode);
    const role = nodeTag?.role ?? (isGroup ? null : 'P');
    if (role === null) return this.#children(node, parent);
    const known = nodeTag?.part === undefined ? undefined : this.#parts.get(nodeTag.part);
    const element =
      known ?? this.ctx.struct(role, nodeTag?.alt === undefined ? {} : { alt: nodeTag.alt });
    if (!known) parent.add(element);
    if (isGroup) this.#children(node, element);
    else {
      element.add(this.ctx.markStructureContent(role));
      this.#alone(node);
      this.ctx.endMarkedContent();
    }
    if (nodeTag?.part === undefined) element.end();
    else this.#parts.set(nodeTag.part, element);
  }
}

/** Lays a document out and draws it as tagged PDF, with its title and language. */
export async function taggedPdf(document: ReactElement): Promise<Buffer> {
  const { container } = pdf(document as Parameters<typeof pdf>[0]) as {
    container: { document: DocumentNode };
  };
  const laidOut = await (
    layOut as (node: DocumentNode, fonts: FontStore) => Promise<SafeDocumentNode>
  )(container.document, makeFonts());
  const { title = '', language = 'en' } = laidOut.props;
  const ctx = new PDFDocument({
    autoFirstPage: false,
    pdfVersion: '1.7',
    tagged: true,
    lang: language,
    displayTitle: true,
    info: { Title: title, Creator: 'Zest Frame', Producer: 'Zest Frame' },
  });
  const chunks: Buffer[] = [];
  const whole = new Promise<Buffer>((resolve, reject) =>
    ctx
      .on('data', (chunk: Buffer) => chunks.push(chunk))
      .on('end', () => resolve(Buffer.concat(chunks)))
      .on('error', reject),
  );
  new TaggedDrawing(ctx).pages(laidOut);
  return whole;
}
