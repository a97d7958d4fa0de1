/** A mono sound as a WAV file of 16 bits. */
export function wavOf(sound: Float32Array, sampleRate: number): Buffer {
  const bytes = Buffer.alloc(44 + sound.length * 2);
  bytes.write("RIFF", 0);
  bytes.writeUInt32LE(36 + sound.length * 2, 4);
  bytes.write("WAVEfmt ", 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(sampleRate, 24);
  bytes.writeUInt32LE(sampleRate * 2, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write("data", 36);
  bytes.writeUInt32LE(sound.length * 2, 40);
  for (let i = 0; i < sound.length; i++) bytes.writeInt16LE(Math.round(Math.max(-1, Math.min(1, sound[i] ?? 0)) * 32_767), 44 + i * 2);
  return bytes;
}
