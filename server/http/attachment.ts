/** A file that a browser saves under its own name. */
import 'server-only';

/** The name in plain letters too, for what does not know RFC 8187. */
export const attachment = (fileName: string, bytes: Uint8Array): Response =>
  new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/octet-stream',
      'content-disposition': `attachment; filename="${fileName.replace(/[^\w .()-]+/g, '_')}"; filename*=UTF-8''${encodeURIComponent(fileName)}`,
    },
  });
