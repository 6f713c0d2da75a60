DROP INDEX "mails_state_index";--> statement-breakpoint
ALTER TABLE "mails" ADD COLUMN "next_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
CREATE INDEX "waiting_mails" ON "mails" USING btree ("next_at") WHERE state = 'waiting';