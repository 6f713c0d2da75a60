-- aliases_thread was a key of an earlier form of 0028: what a teammate goes by hangs on no contribution
ALTER TABLE aliases DROP CONSTRAINT IF EXISTS aliases_thread;
