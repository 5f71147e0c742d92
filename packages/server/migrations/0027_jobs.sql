CREATE TABLE "job" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "job_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	"digest" text NOT NULL,
	"build" text NOT NULL,
	"input" text NOT NULL,
	"person_id" integer,
	"waiters" integer DEFAULT 0 NOT NULL,
	"attempts" integer DEFAULT 0 NOT NULL,
	"asked_at" timestamp with time zone DEFAULT now() NOT NULL,
	"begun_at" timestamp with time zone,
	"done_at" timestamp with time zone,
	"result" "bytea",
	"problem" jsonb,
	CONSTRAINT "job_digest_unique" UNIQUE("digest")
);
--> statement-breakpoint
CREATE INDEX "job_open" ON "job" USING btree ("id") WHERE "job"."done_at" is null;