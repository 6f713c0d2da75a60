import { crc32, deflateRawSync } from 'node:zlib'

const DEFLATED = 8
const UTF8_NAMES = 0x800

/**
 * A zip archive of these parts (APPNOTE 6.3.10, without data descriptors), packed by Node itself: hundreds of megabytes of
 * nothing take a moment, and names may be such as no library would write.
 */
export function zipOf(parts: Readonly<Record<string, Uint8Array>>): Buffer {
  const [files, directory]: [Buffer[], Buffer[]] = [[], []]
  let at = 0
  for (const [path, bytes] of Object.entries(parts)) {
    const name = Buffer.from(path)
    const packed = deflateRawSync(bytes)
    const common = Buffer.alloc(26)
    common.writeUInt16LE(20, 0) // version needed
    common.writeUInt16LE(UTF8_NAMES, 2)
    common.writeUInt16LE(DEFLATED, 4)
    common.writeUInt32LE(crc32(bytes), 10)
    common.writeUInt32LE(packed.length, 14)
    common.writeUInt32LE(bytes.length, 18)
    common.writeUInt16LE(name.length, 22)
    const rest = Buffer.alloc(14)
    rest.writeUInt32LE(at, 10) // where its local header is
    files.push(Buffer.from('PK\x03\x04', 'latin1'), common, name, packed)
    directory.push(Buffer.from('PK\x01\x02\x14\0', 'latin1'), common, rest, name)
    at += 30 + name.length + packed.length
  }
  const listed = Buffer.concat(directory)
  const end = Buffer.alloc(18)
  end.writeUInt16LE(Object.keys(parts).length, 4)
  end.writeUInt16LE(Object.keys(parts).length, 6)
  end.writeUInt32LE(listed.length, 8)
  end.writeUInt32LE(at, 12)
  return Buffer.concat([...files, listed, Buffer.from('PK\x05\x06', 'latin1'), end])
}
