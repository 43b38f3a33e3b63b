/** A random id: 12 characters of 32 (60 bits). Works without a secure context, unlike crypto.randomUUID. */
export function newId(): string {
  const alphabet = '0123456789abcdefghjkmnpqrstvwxyz';
  return Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => alphabet[byte % 32]).join('');
}
