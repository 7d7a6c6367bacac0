import { promisify } from 'node:util';
import { deflate, inflate } from 'node:zlib';

const deflateText = promisify<string, Buffer>(deflate);
const inflateBytes = promisify<Buffer, Buffer>(inflate);

/** A text as MariaDB's COMPRESS() stores it: its length in bytes (32 bits, least first), then zlib's stream. */
export async function pack(text: string): Promise<Buffer> {
  const length = Buffer.alloc(4);
  length.writeUInt32LE(Buffer.byteLength(text));
  return Buffer.concat([length, await deflateText(text)]);
}

/** The text that was packed. */
export const unpack = async (packed: Buffer): Promise<string> =>
  (await inflateBytes(packed.subarray(4))).toString('utf8');
