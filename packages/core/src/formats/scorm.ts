import { XMLBuilder } from 'fast-xml-parser';

/** A package's page and everything it loads, by path. */
export interface ScormContent {
  /** Letters, digits, - and _: the same lesson keeps its identifier. */
  id: string;
  title: string;
  page: string;
  files: readonly string[];
}

const IMSCP = 'http://www.imsproject.org/xsd/imscp_rootv1p1p2';
const ADLCP = 'http://www.adlnet.org/xsd/adlcp_rootv1p2';

/** What XML 1.0 cannot hold at all. */
const unprintable =
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/**
 * The manifest of a SCORM 1.2 package with one lesson in it (SCORM 1.2 Content Aggregation Model,
 * section 2.3).
 */
export function scormManifest({ id, title, page, files }: ScormContent): string {
  const shown = title.replace(unprintable, '');
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    format: true,
    suppressEmptyNode: true,
  });
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    manifest: {
      '@xmlns': IMSCP,
      '@xmlns:adlcp': ADLCP,
      '@identifier': `zest-${id}`,
      '@version': '1.0',
      metadata: { schema: 'ADL SCORM', schemaversion: '1.2' },
      organizations: {
        '@default': 'lesson',
        organization: {
          '@identifier': 'lesson',
          title: shown,
          item: { '@identifier': 'item', '@identifierref': 'page', title: shown },
        },
      },
      resources: {
        resource: {
          '@identifier': 'page',
          '@type': 'webcontent',
          '@adlcp:scormtype': 'sco',
          '@href': page,
          file: files.map((href) => ({ '@href': href })),
        },
      },
    },
  });
}
