/** HTTPS before the server: hands every request on to it over this machine's own address. */
import { X509Certificate } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import net from 'node:net';
import selfsigned from 'selfsigned';

const FOLDER = 'data/tls';
/** Valid so long: what browsers accept of a certificate (CA/Browser Forum baseline requirements, from memory). */
const DAYS = 397;
/** A request's head and body have to come within so much, ms. Engineering estimates. */
const HEAD_MS = 15_000;
const WHOLE_MS = 120_000;

/** The shop's own certificate, or one that is made once for these names. */
export async function certificate(names) {
  const { UNISOLDA_CERT, UNISOLDA_KEY } = process.env;
  const [certFile, keyFile] =
    UNISOLDA_CERT && UNISOLDA_KEY ? [UNISOLDA_CERT, UNISOLDA_KEY] : [`${FOLDER}/cert.pem`, `${FOLDER}/key.pem`];
  if (!UNISOLDA_CERT && !existsSync(certFile)) await makeOne(names, certFile, keyFile);
  const cert = readFileSync(certFile, 'utf8');
  return { cert, key: readFileSync(keyFile, 'utf8'), fingerprint: new X509Certificate(cert).fingerprint256 };
}

async function makeOne(names, certFile, keyFile) {
  const now = new Date();
  const pair = await selfsigned.generate([{ name: 'commonName', value: names[0] }], {
    notBeforeDate: now,
    notAfterDate: new Date(now.getTime() + DAYS * 24 * 3_600_000),
    keySize: 2048,
    algorithm: 'sha256',
    extensions: [
      {
        name: 'subjectAltName',
        altNames: names.map((n) => (net.isIP(n) ? { type: 7, ip: n } : { type: 2, value: n })),
      },
    ],
  });
  mkdirSync(FOLDER, { recursive: true, mode: 0o700 });
  writeFileSync(certFile, pair.cert);
  writeFileSync(keyFile, pair.private, { mode: 0o600 });
  chmodSync(keyFile, 0o600);
}

export function serveHttps({ host, port, inner, pair }) {
  const agent = new http.Agent({ keepAlive: true });
  const front = https.createServer(
    { cert: pair.cert, key: pair.key, requestTimeout: WHOLE_MS, headersTimeout: HEAD_MS },
    (from, to) => {
      const headers = {
        ...from.headers,
        'x-forwarded-for': from.socket.remoteAddress,
        'x-forwarded-proto': 'https',
        'x-forwarded-host': from.headers.host,
      };
      const onward = http.request(
        { host: '127.0.0.1', port: inner, method: from.method, path: from.url, headers, agent },
        (answer) => {
          to.writeHead(answer.statusCode, { ...answer.headers, 'strict-transport-security': 'max-age=31536000' });
          answer.pipe(to);
        },
      );
      onward.on('error', () => {
        if (!to.headersSent) to.writeHead(502, { 'content-type': 'text/plain' });
        to.end('The bench is starting or has stopped; try again in a moment.');
      });
      from.pipe(onward);
      to.on('close', () => onward.destroy());
    },
  );
  front.listen(port, host);
  return front;
}
