/** A WAV file of a tone, 16 bit mono. */
export function wav(rate: number, seconds: number): Buffer {
  const n = rate * seconds
  const b = Buffer.alloc(44 + 2 * n)
  b.write('RIFF', 0)
  b.writeUInt32LE(36 + 2 * n, 4)
  b.write('WAVEfmt ', 8)
  b.writeUInt32LE(16, 16)
  b.writeUInt16LE(1, 20)
  b.writeUInt16LE(1, 22)
  b.writeUInt32LE(rate, 24)
  b.writeUInt32LE(rate * 2, 28)
  b.writeUInt16LE(2, 32)
  b.writeUInt16LE(16, 34)
  b.write('data', 36)
  b.writeUInt32LE(2 * n, 40)
  for (let i = 0; i < n; i++) b.writeInt16LE(Math.round(8000 * Math.sin((i * 440 * 2 * Math.PI) / rate)), 44 + 2 * i)
  return b
}
