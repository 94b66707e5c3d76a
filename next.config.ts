import type { NextConfig } from 'next';

/** The content security policy is set by proxy.ts, with a nonce for each page. */
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
    return [
      { source: '/icon.svg', headers: [{ key: 'Cache-Control', value: 'public, max-age=604800' }] },
      {
        source: '/:path*',
        headers: [
          { key: 'X-Content-Type-Options', value: 'nosniff' },
          { key: 'Referrer-Policy', value: 'same-origin' },
          { key: 'X-Frame-Options', value: 'DENY' },
        ],
      },
    ];
  },
};
export default config;
