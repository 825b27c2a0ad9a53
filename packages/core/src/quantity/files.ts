/** Files that are kept by the hash of their content: the same bytes are the same file anywhere. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { IsString, Length, Matches } from 'class-validator';

/** A file as a job names it. */
export class JobFile {
  /** What it was called where it came from. */
  @IsString() @Length(1, 120) name!: string;
  /** SHA-256 of its content, in hexadecimal. */
  @Matches(/^[0-9a-f]{64}$/) sha256!: string;
}

/** Largest file that is kept, bytes. */
export const LARGEST_FILE = 100_000_000;

/** What a file is kept under. */
export const sha256Of = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/** Bytes taken into a hash at once. */
const PIECE = 1 << 20;

/** The same piece by piece, for whoever has something else to do between two of them. */
export function* sha256InPieces(bytes: Uint8Array): Generator<void, string> {
  const hash = sha256.create();
  for (let at = 0; at < bytes.length; at += PIECE) {
    hash.update(bytes.subarray(at, at + PIECE));
    yield;
  }
  return bytesToHex(hash.digest());
}

const AT_HAND = new Map<string, Uint8Array>();

/** Puts a file where whatever is computed from it finds it, under what it is kept under. */
export function putAtHandAs(key: string, bytes: Uint8Array): string {
  AT_HAND.set(key, bytes);
  return key;
}

/** Puts a file where whatever is computed from it finds it; what it is kept under. */
export const putAtHand = (bytes: Uint8Array): string => putAtHandAs(sha256Of(bytes), bytes);

/** The content of a file; undefined where nobody put it at hand. */
export const atHand = (key: string): Uint8Array | undefined => AT_HAND.get(key);
