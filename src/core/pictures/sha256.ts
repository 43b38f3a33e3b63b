import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** SHA-256 as lower-case hex. From a library, since a page opened over plain http has no crypto.subtle. */
export const sha256Hex = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));
