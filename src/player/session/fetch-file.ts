import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { Asset } from '@/core/playing';
import { nextOf, type ProtocolClient } from '@/protocol/client';
import type { PlayerStore } from './store';

/** A file came otherwise than its name says: what came of it is thrown away. */
export class DamagedFile extends Error {}

interface Fetching {
  readonly client: ProtocolClient;
  readonly store: PlayerStore;
  readonly signal: AbortSignal;
  /** Hears after each piece how many bytes are here. */
  readonly onBytes: (bytes: number) => Promise<void> | void;
  /** About so many bytes are kept at a time. */
  readonly pieceBytes: number;
}

/**
 * Fetches one file, going on where an earlier try broke off, a piece at a time; it counts only once all of it has the hash that it
 * is named by. Broken off by the signal, it keeps what it has. Throws DamagedFile, the client's ProtocolError, and the store's own.
 */
export async function fetchFile(asset: Asset, { client, store, signal, onBytes, pieceBytes }: Fetching): Promise<void> {
  let hash = sha256.create();
  let bytes = 0;
  for await (const piece of store.pieces(asset.sha256)) {
    hash.update(piece);
    bytes += piece.byteLength;
  }
  await onBytes(bytes);
  if (bytes < asset.bytes && !signal.aborted) {
    const { body, resumed } = await client.asset(asset.sha256, bytes, signal);
    if (!resumed && bytes > 0) {
      await store.discard(asset.sha256);
      hash = sha256.create();
      bytes = 0;
    }
    for await (const piece of inPieces(body, pieceBytes, signal)) {
      hash.update(piece);
      bytes += piece.byteLength;
      if (bytes > asset.bytes) break;
      await store.append(asset.sha256, piece);
      await onBytes(bytes);
    }
  }
  if (signal.aborted && bytes < asset.bytes) return;
  if (bytes !== asset.bytes || bytesToHex(hash.digest()) !== asset.sha256) {
    await store.discard(asset.sha256);
    await onBytes(0);
    throw new DamagedFile(`A file arrived damaged (${asset.sha256.slice(0, 8)}), so it is being downloaded again.`);
  }
  await store.complete(asset);
}

/** The stream in pieces of about so many bytes, so that each write to the store is worth its while; ends early when aborted. */
async function* inPieces(
  body: ReadableStream<Uint8Array>,
  pieceBytes: number,
  signal: AbortSignal,
): AsyncGenerator<Uint8Array> {
  const reader = body.getReader();
  const cancel = () => void reader.cancel().catch(ignoreCancelled);
  signal.addEventListener('abort', cancel);
  let waiting: Uint8Array[] = [];
  let size = 0;
  const join = () => {
    const piece = new Uint8Array(size);
    let at = 0;
    for (const chunk of waiting) {
      piece.set(chunk, at);
      at += chunk.byteLength;
    }
    waiting = [];
    size = 0;
    return piece;
  };
  try {
    for (;;) {
      const { done, value } = await nextOf(reader);
      if (done) break;
      waiting.push(value);
      size += value.byteLength;
      if (size >= pieceBytes) yield join();
    }
    if (size > 0) yield join();
  } finally {
    signal.removeEventListener('abort', cancel);
    cancel();
  }
}

/** A stream that is over already can't be cancelled: nothing is lost by that. */
const ignoreCancelled = () => undefined;
