CREATE TABLE "recovery_codes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"digest" text NOT NULL,
	"used_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "second_factors" (
	"person_id" uuid PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"confirmed_at" timestamp with time zone,
	"last_step" integer DEFAULT 0 NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sign_in_steps" (
	"digest" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "access_log" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"act" text NOT NULL,
	"done" boolean NOT NULL,
	"person_id" uuid,
	"seminar_id" uuid,
	"about" text DEFAULT '' NOT NULL,
	"client" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "recovery_codes" ADD CONSTRAINT "recovery_codes_person_id_persons_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."persons"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_factors" ADD CONSTRAINT "second_factors_person_id_persons_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."persons"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sign_in_steps" ADD CONSTRAINT "sign_in_steps_person_id_persons_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."persons"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "recovery_codes_person_id_index" ON "recovery_codes" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "sign_in_steps_expires_at_index" ON "sign_in_steps" USING btree ("expires_at");--> statement-breakpoint
CREATE INDEX "access_log_at_index" ON "access_log" USING btree ("at");--> statement-breakpoint
CREATE INDEX "access_log_person_id_index" ON "access_log" USING btree ("person_id");