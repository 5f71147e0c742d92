CREATE TABLE "step_words" (
	"pattern_id" integer NOT NULL,
	"language" text NOT NULL,
	"part" text NOT NULL,
	"text" text NOT NULL,
	"nth" integer NOT NULL,
	"instead" text NOT NULL,
	"also" text NOT NULL,
	CONSTRAINT "step_words_pattern_id_language_part_text_nth_pk" PRIMARY KEY("pattern_id","language","part","text","nth"),
	CONSTRAINT "step_words_language" CHECK ("step_words"."language" in ('en', 'de')),
	CONSTRAINT "step_words_say_something" CHECK ("step_words"."instead" <> '' or "step_words"."also" <> '')
);
--> statement-breakpoint
ALTER TABLE "pattern_version" ADD COLUMN "words" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "pattern_version" ADD COLUMN "published" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "pattern_version" ADD COLUMN "corrects" integer;--> statement-breakpoint
ALTER TABLE "pattern_version" ADD COLUMN "sampled_ratio" real DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "pattern_version" ADD COLUMN "sampled_count" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sample" ADD COLUMN "computed_minutes" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sample" ADD COLUMN "technique" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "step_words" ADD CONSTRAINT "step_words_pattern_id_pattern_id_fk" FOREIGN KEY ("pattern_id") REFERENCES "public"."pattern"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sample_technique" ON "sample" USING btree ("technique");--> statement-breakpoint
ALTER TABLE "pattern_version" ADD CONSTRAINT "pattern_version_corrects" CHECK ("pattern_version"."corrects" < "pattern_version"."number");--> statement-breakpoint
ALTER TABLE "pattern_version" ADD CONSTRAINT "pattern_version_sampled" CHECK ("pattern_version"."sampled_ratio" > 0 and "pattern_version"."sampled_count" >= 0);--> statement-breakpoint
create trigger step_words_tells after insert or update or delete on step_words for each statement execute function tell_changes('patterns');
