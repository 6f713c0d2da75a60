ALTER TABLE "closing_answers" ADD COLUMN "round" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "closing_rounds" ADD COLUMN "round" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "closing_answers" DROP CONSTRAINT "closing_answers_activity_id_enrolment_id_pk";--> statement-breakpoint
ALTER TABLE "closing_rounds" DROP CONSTRAINT "closing_rounds_pkey";--> statement-breakpoint
ALTER TABLE "closing_answers" ADD CONSTRAINT "closing_answers_activity_id_round_enrolment_id_pk"
  PRIMARY KEY("activity_id","round","enrolment_id");--> statement-breakpoint
ALTER TABLE "closing_rounds" ADD CONSTRAINT "closing_rounds_activity_id_round_pk" PRIMARY KEY("activity_id","round");
