/** Bytes as text in base 64 (RFC 4648 § 4). */
const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

export function base64(bytes: Uint8Array): string {
  let out = ''
  for (let k = 0; k < bytes.length; k += 3) {
    const [a, b, c] = [bytes[k]!, bytes[k + 1] ?? 0, bytes[k + 2] ?? 0]
    out += DIGITS[a >> 2]! + DIGITS[((a & 3) << 4) | (b >> 4)]!
    out += k + 1 < bytes.length ? DIGITS[((b & 15) << 2) | (c >> 6)]! : '='
    out += k + 2 < bytes.length ? DIGITS[c & 63]! : '='
  }
  return out
}
