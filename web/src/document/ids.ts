/** A fresh id, like Go's: what is added can be named before it has arrived. */
export function newId(): string {
  const letters = 'abcdefghijkmnpqrstuvwxyz23456789'
  return Array.from(crypto.getRandomValues(new Uint8Array(10)), (b) => letters[b % 32]).join('')
}
