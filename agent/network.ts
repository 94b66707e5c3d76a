/** The way to the server, where it is not straight: through a proxy of the house, or to a certificate of the house. */
import { readFile } from 'node:fs/promises';
import { rootCertificates } from 'node:tls';
import { EnvHttpProxyAgent, setGlobalDispatcher } from 'undici';

export interface Network {
  /** such as http://proxy.house:3128; without, what the environment says (HTTPS_PROXY, HTTP_PROXY, NO_PROXY) */
  proxy?: string | undefined;
  /** a file in PEM form with the authority that vouches for the server, beside those that every system knows */
  authority?: string | undefined;
}

const PROXY_VARIABLES = ['http_proxy', 'HTTP_PROXY', 'https_proxy', 'HTTPS_PROXY'];

/** Whether something was said of the way; without, calls go as they always went. */
const isSaid = ({ proxy, authority }: Network, environment: Readonly<Record<string, string | undefined>>): boolean =>
  !!proxy || !!authority || PROXY_VARIABLES.some((name) => environment[name]);

/**
 * Sends all further calls of this process that way. Throws where the authority's file cannot be read or holds no
 * certificate, or the proxy is no address.
 */
export async function takeWay(
  network: Network,
  environment: Readonly<Record<string, string | undefined>>,
): Promise<void> {
  if (!isSaid(network, environment)) return;
  const { proxy, authority } = network;
  const trusted = authority ? await certificatesWith(authority) : undefined;
  const tls = trusted ? { ca: trusted } : undefined;
  setGlobalDispatcher(
    new EnvHttpProxyAgent({
      ...(proxy ? { httpProxy: proxy, httpsProxy: proxy } : {}),
      ...(tls ? { connect: tls, requestTls: tls, proxyTls: tls } : {}),
    }),
  );
}

async function certificatesWith(file: string): Promise<string[]> {
  const text = await readFile(file, 'utf8').catch(() => {
    throw new Error(`the authority's file ${file} cannot be read`);
  });
  if (!text.includes('-----BEGIN CERTIFICATE-----'))
    throw new Error(`${file} holds no certificate in PEM form (-----BEGIN CERTIFICATE-----)`);
  return [...rootCertificates, text];
}
