/** Everything of a muster in one zip: the muster, its log, and the log's pictures as files of their own. */
import { MusterFileError, readMuster, writeMuster } from '#core/muster';
import CRC32 from 'crc-32';
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import type { Muster } from '#core/muster';
import { LOG_FORMAT, readLogFile, type LogEntry } from '#core/log';

export interface Archive {
  readonly muster: Muster;
  readonly log: readonly LogEntry[];
  readonly pictures: number;
}

const MUSTER_FILE = 'muster.json';
const LOG_FILE = 'log.json';
const PICTURES = 'pictures/';
/** Unpacked; a zip that says it holds more is not opened. */
const MOST_BYTES = 400_000_000;
const DATA = /^data:image\/(jpeg|png|webp);base64,(.*)$/;

/** @returns the bytes of a .zip; pictures lie beside the log and are named in it */
export function writeArchive(muster: Muster, log: readonly LogEntry[]): Uint8Array<ArrayBuffer> {
  const files: Zippable = {};
  const entries = log.map((e) => {
    const [, type, data] = e.kind === 'picture' ? (DATA.exec(e.data) ?? []) : [];
    if (e.kind !== 'picture' || type === undefined || data === undefined) return e;
    const file = `${PICTURES}${e.id.replace(/[^\w-]/g, '_')}.${type === 'jpeg' ? 'jpg' : type}`;
    // A picture is packed already.
    files[file] = [bytesOf(data), { level: 0 }];
    return { ...e, data: file };
  });
  files[MUSTER_FILE] = strToU8(writeMuster(muster));
  files[LOG_FILE] = strToU8(`${JSON.stringify({ format: LOG_FORMAT, entries }, null, 1)}\n`);
  return new Uint8Array(zipSync(files));
}

/**
 * Reads what `writeArchive` wrote, or a zip made like it by hand.
 * @throws MusterFileError or Error in words; nothing is taken then
 */
export function readArchive(bytes: Uint8Array, zone: string): Archive {
  let size = 0;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: (file) => {
        size += file.originalSize;
        if (size > MOST_BYTES) throw new Error('too large');
        return true;
      },
    });
  } catch (error) {
    throw new Error(
      error instanceof Error && error.message === 'too large'
        ? `This archive holds more than ${MOST_BYTES / 1_000_000} MB; nothing was taken.`
        : 'This is no zip archive that can be read; nothing was taken.',
    );
  }
  const damaged = firstDamaged(bytes, files);
  if (damaged !== null)
    throw new Error(`${damaged} in this archive is damaged: its check sum is wrong. Nothing was taken.`);
  const own = files[MUSTER_FILE];
  if (!own) throw new MusterFileError([{ path: MUSTER_FILE, text: 'is not in this archive' }]);
  const muster = readMuster(strFromU8(own), zone);
  const logText = files[LOG_FILE] ? strFromU8(files[LOG_FILE]) : null;
  if (logText === null) return { muster, log: [], pictures: 0 };
  let pictures = 0;
  const withPictures = logText.replace(/"data":\s*"(pictures\/[\w.-]+)"/g, (_, name: string) => {
    const picture = files[name];
    if (!picture)
      throw new Error(`The picture ${name} is named in the log and not in the archive; nothing was taken.`);
    pictures++;
    const type = name.endsWith('.jpg') ? 'jpeg' : name.endsWith('.png') ? 'png' : 'webp';
    return `"data":"data:image/${type};base64,${base64Of(picture)}"`;
  });
  return { muster, log: readLogFile(withPictures, zone), pictures };
}

const CENTRAL_HEADER = 0x02014b50;
const END_HEADER = 0x06054b50;
const END_BYTES = 22;

/**
 * The first file whose bytes are not those that were packed, by the CRC-32 in the central directory (.ZIP File Format Specification 4.3.12,
 * from memory); null where all are.
 */
function firstDamaged(zip: Uint8Array, files: Readonly<Record<string, Uint8Array>>): string | null {
  const view = new DataView(zip.buffer, zip.byteOffset, zip.byteLength);
  let end = zip.length - END_BYTES;
  while (end > 0 && view.getUint32(end, true) !== END_HEADER) end--;
  let at = view.getUint32(end + 16, true);
  for (let left = view.getUint16(end + 10, true); left > 0; left--) {
    if (at + 46 > zip.length || view.getUint32(at, true) !== CENTRAL_HEADER) return 'The list of files';
    const [nameLength, extraLength, noteLength] = [28, 30, 32].map((k) => view.getUint16(at + k, true));
    const name = strFromU8(zip.subarray(at + 46, at + 46 + nameLength!));
    const file = files[name];
    if (file && CRC32.buf(file) >>> 0 !== view.getUint32(at + 16, true)) return name;
    at += 46 + nameLength! + extraLength! + noteLength!;
  }
  return null;
}

function bytesOf(base64: string): Uint8Array {
  return Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
}

function base64Of(bytes: Uint8Array): string {
  let text = '';
  const PART = 0x8000;
  for (let k = 0; k < bytes.length; k += PART) text += String.fromCharCode(...bytes.subarray(k, k + PART));
  return btoa(text);
}
