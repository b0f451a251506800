import { createServer, type AddressInfo, type Socket } from 'node:net';
import type { Speaker } from './speaker';

/** Lets a speaker be reached over TCP on this machine while the work goes on. */
export async function servedOverTcp(speaker: Speaker, work: (port: number) => Promise<void>): Promise<void> {
  const { line } = speaker.definition;
  const end = { lf: '\n', cr: '\r', crlf: '\r\n' }[line.end];
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    let held = '';
    const talk = setInterval(() => {
      const { dialect } = speaker.definition;
      if (dialect.kind === 'meter' && !dialect.identify) socket.write(speaker.display + end);
      else if (dialect.kind === 'usbMeter' || dialect.kind === 'logger') socket.write(speaker.sample(1, 5, 0.5) + end);
    }, 5);
    socket.on('close', () => clearInterval(talk));
    socket.on('error', () => undefined);
    socket.on('data', (bytes) => {
      held += bytes.toString();
      const lines = held.split(/\r?\n|\r/);
      held = lines.pop()!;
      for (const text of lines.filter(Boolean)) {
        if (line.echo) socket.write(text + end);
        const answer = speaker.hear(text);
        if (answer !== undefined) socket.write(answer + end);
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  try {
    await work((server.address() as AddressInfo).port);
  } finally {
    sockets.forEach((s) => s.destroy());
    server.close();
  }
}
