-- Files are read in pieces; of bytes that PostgreSQL has packed it would unpack everything before a piece each time.
ALTER TABLE "files" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;
