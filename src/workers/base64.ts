/** Bytes as base64 text, in strides that a call's argument list can hold. */
export function toBase64(bytes: Uint8Array): string {
  const stride = 0x8000;
  let text = '';
  for (let at = 0; at < bytes.length; at += stride) text += String.fromCharCode(...bytes.subarray(at, at + stride));
  return btoa(text);
}

export function fromBase64(text: string): Uint8Array<ArrayBuffer> {
  const binary = atob(text);
  const bytes = new Uint8Array(binary.length);
  for (let i = 0; i < binary.length; i++) bytes[i] = binary.charCodeAt(i);
  return bytes;
}
