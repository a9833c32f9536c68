import { DOMParser } from '@xmldom/xmldom';
import { describe, expect, it } from 'vitest';
import { qrPath, scormManifest } from './index.ts';

describe('the SCORM 1.2 manifest', () => {
  it('is well-formed whatever the title, and names the page and every file', () => {
    const xml = scormManifest({
      id: 'a-1',
      title: '“Skip” & <throw> 🤸 \u0001\uD800',
      page: 'index.html',
      files: ['index.html', 'takes/a.mp4'],
    });
    // Read by another package than it is written with; it refuses what is not well-formed.
    const read = new DOMParser({
      onError: (_level, message) => expect.unreachable(message),
    }).parseFromString(xml, 'text/xml');
    const texts = (name: string) =>
      Array.from(read.getElementsByTagName(name), (element) => element.textContent);
    const attributes = (name: string, attribute: string) =>
      Array.from(read.getElementsByTagName(name), (element) => element.getAttribute(attribute));
    expect([...texts('schema'), ...texts('schemaversion')]).toEqual(['ADL SCORM', '1.2']);
    expect(texts('title').map((title) => title?.trim())).toEqual([
      '“Skip” & <throw> 🤸',
      '“Skip” & <throw> 🤸',
    ]);
    expect(
      ['type', 'href', 'adlcp:scormtype'].flatMap((name) => attributes('resource', name)),
    ).toEqual(['webcontent', 'index.html', 'sco']);
    expect(
      read
        .getElementsByTagName('resource')[0]
        ?.getAttributeNS('http://www.adlnet.org/xsd/adlcp_rootv1p2', 'scormtype'),
    ).toBe('sco');
    expect(attributes('file', 'href')).toEqual(['index.html', 'takes/a.mp4']);
    expect(attributes('item', 'identifierref')).toEqual(attributes('resource', 'identifier'));
  });
});

describe('a QR code', () => {
  it('has its three finder patterns within a quiet zone, and grows with its text', () => {
    const { size, path } = qrPath('http://127.0.0.1:4600/follow/abc');
    // Version 3 has 29 modules (ISO/IEC 18004, table 1); four light ones on each side.
    expect(size).toBe(29 + 8);
    for (const corner of ['M4 4h7', `M${size - 4 - 7} 4h7`, `M4 ${size - 4 - 7}h7`])
      expect(path).toContain(corner);
    expect(qrPath('x'.repeat(400)).size).toBeGreaterThan(size);
  });
});
