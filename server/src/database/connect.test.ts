import { createServer, type AddressInfo } from 'node:net';
import { expect, it } from 'vitest';
import { connectDatabase } from './connect.ts';

/** A message of PostgreSQL's protocol: a letter, its length, what it says. */
function message(letter: string, body: Buffer): Buffer {
  const length = Buffer.alloc(4);
  length.writeInt32BE(body.length + 4);
  return Buffer.concat([Buffer.from(letter), length, body]);
}

it('a database that dies in the moment it lets somebody in ends no server: what is asked is refused', async () => {
  const fatal = 'SFATAL\0C57P02\0Mterminating connection due to unexpected postmaster exit\0\0';
  // Let in, ready, and gone: in one packet, so that nobody can have begun to listen in between.
  const greeting = Buffer.concat([
    message('R', Buffer.alloc(4)),
    message('Z', Buffer.from('I')),
    message('E', Buffer.from(fatal)),
  ]);
  const dying = createServer((socket) => {
    socket.on('error', () => undefined);
    socket.once('data', () => socket.end(greeting));
  });
  await new Promise<void>((resolve) => dying.listen(0, '127.0.0.1', resolve));
  const { port } = dying.address() as AddressInfo;
  const db = connectDatabase(`postgres://nobody@127.0.0.1:${port}/nothing`);
  await expect(db.sequelize.query('select 1')).rejects.toThrow();
  await db.sequelize.close();
  await new Promise((resolve) => dying.close(resolve));
});
