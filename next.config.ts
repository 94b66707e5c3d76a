import type { NextConfig } from 'next';

/** The headers of answers, the content security policy among them, are set by the web process (processes/web/page-headers.ts). */
const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  compress: false, // the web process does it (processes/web/main.ts)
  serverExternalPackages: [
    'sharp',
    'lcms-wasm',
    'pg',
    '@node-rs/argon2',
    'graphile-worker',
    'yauzl',
    'pino',
    'prom-client',
  ],
  images: { unoptimized: true },
  typescript: { ignoreBuildErrors: true }, // bin/test runs the type check; a start must not wait for it
  async headers() {
    // the browser asks for the icon at every change of the address; its own address changes with it
    return [{ source: '/icon.svg', headers: [{ key: 'Cache-Control', value: 'public, max-age=604800' }] }];
  },
};
export default config;
