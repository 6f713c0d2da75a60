// Stored files: kept, read by the piece, copied. This is what other areas may use of it.
export { bytesOf, storeFile } from './files'
export { readAttachment } from './inThread'
export { type StoredFile, copyStoredFile, storedBytes, storedFile, wholeBytes } from './storedBytes'
export { keepTranscript } from './transcripts'
export { wordsOfFiles } from './wordsOfFiles'
