CREATE TABLE "due_failures" (
	"task" text NOT NULL,
	"subject_id" uuid NOT NULL,
	"seminar_id" uuid NOT NULL,
	"reason" text NOT NULL,
	"tries" integer NOT NULL,
	"first_at" timestamp with time zone NOT NULL,
	"last_at" timestamp with time zone NOT NULL,
	"next_at" timestamp with time zone NOT NULL,
	CONSTRAINT "due_failures_task_subject_id_pk" PRIMARY KEY("task","subject_id")
);
--> statement-breakpoint
ALTER TABLE "due_failures" ADD CONSTRAINT "due_failures_seminar_id_seminars_id_fk"
  FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id")
  ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "due_failures_seminar_id_index" ON "due_failures" USING btree ("seminar_id");