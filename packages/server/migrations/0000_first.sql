CREATE TABLE "action" (
	"key" text PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"person_id" integer NOT NULL,
	"result" jsonb,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "batch" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "batch_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	"due_on" date NOT NULL,
	"state" text DEFAULT 'draft' NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL,
	CONSTRAINT "batch_state" CHECK ("batch"."state" in ('draft', 'reserved', 'cancelled'))
);
--> statement-breakpoint
CREATE TABLE "batch_line" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "batch_line_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"batch_id" integer NOT NULL,
	"position" integer NOT NULL,
	"pattern_version_id" integer NOT NULL,
	"size" text NOT NULL,
	"colourway_version_id" integer NOT NULL,
	"kits" integer NOT NULL,
	CONSTRAINT "batch_line_position" UNIQUE("batch_id","position"),
	CONSTRAINT "batch_line_kits" CHECK ("batch_line"."kits" between 1 and 10000)
);
--> statement-breakpoint
CREATE TABLE "colourway" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "colourway_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"pattern_id" integer NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "colourway_name" UNIQUE("pattern_id","name")
);
--> statement-breakpoint
CREATE TABLE "colourway_choice" (
	"colourway_version_id" integer NOT NULL,
	"role" text NOT NULL,
	"size" text DEFAULT '' NOT NULL,
	"item_id" integer NOT NULL,
	CONSTRAINT "colourway_choice_colourway_version_id_role_size_pk" PRIMARY KEY("colourway_version_id","role","size")
);
--> statement-breakpoint
CREATE TABLE "colourway_version" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "colourway_version_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"colourway_id" integer NOT NULL,
	"number" integer NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL,
	CONSTRAINT "colourway_version_number" UNIQUE("colourway_id","number")
);
--> statement-breakpoint
CREATE TABLE "pattern" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "pattern_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"title" text NOT NULL,
	"source" text NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"saved_by" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pattern_version" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "pattern_version_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"pattern_id" integer NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"source" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL,
	CONSTRAINT "pattern_version_number" UNIQUE("pattern_id","number"),
	CONSTRAINT "pattern_version_from_1" CHECK ("pattern_version"."number" >= 1)
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "person_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	"full_name" text NOT NULL,
	"role" text NOT NULL,
	"password_hash" text NOT NULL,
	CONSTRAINT "person_name_unique" UNIQUE("name"),
	CONSTRAINT "person_role" CHECK ("person"."role" in ('owner', 'designer', 'stockroom', 'teacher'))
);
--> statement-breakpoint
CREATE TABLE "session" (
	"sid" varchar PRIMARY KEY NOT NULL,
	"sess" json NOT NULL,
	"expire" timestamp (6) NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sign_in_limit" (
	"key" varchar(255) PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "balance" (
	"lot_id" integer PRIMARY KEY NOT NULL,
	"on_hand" bigint DEFAULT 0 NOT NULL,
	"reserved" bigint DEFAULT 0 NOT NULL,
	CONSTRAINT "balance_reserved_not_negative" CHECK ("balance"."reserved" >= 0),
	CONSTRAINT "balance_reserved_within_on_hand" CHECK ("balance"."reserved" <= "balance"."on_hand")
);
--> statement-breakpoint
CREATE TABLE "item" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "item_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"code" text NOT NULL,
	"category" text NOT NULL,
	"maker_id" integer NOT NULL,
	"kind" text NOT NULL,
	"size" text NOT NULL,
	"colour_code" text DEFAULT '' NOT NULL,
	"colour_name" text NOT NULL,
	"finish" text DEFAULT '' NOT NULL,
	"colour" text NOT NULL,
	"unit" text NOT NULL,
	"place" text DEFAULT '' NOT NULL,
	"reorder_below" bigint DEFAULT 0 NOT NULL,
	"length_mm" double precision,
	"across_mm" double precision,
	"bore_mm" double precision,
	"mass_mg" double precision,
	"contact" double precision,
	"bores" integer,
	CONSTRAINT "item_code_unique" UNIQUE("code"),
	CONSTRAINT "item_category" CHECK ("item"."category" in ('bead', 'stone', 'thread')),
	CONSTRAINT "item_unit" CHECK ("item"."unit" in ('mg', 'piece', 'mm')),
	CONSTRAINT "item_colour" CHECK ("item"."colour" ~ '^#[0-9a-f]{6}$'),
	CONSTRAINT "item_bead_figures" CHECK ("item"."category" <> 'bead' or coalesce("item"."length_mm" > 0 and "item"."across_mm" > 0 and "item"."bore_mm" > 0 and "item"."mass_mg" > 0 and "item"."contact" > 0 and "item"."bores" in (1, 2), false))
);
--> statement-breakpoint
CREATE TABLE "lot" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "lot_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"item_id" integer NOT NULL,
	"code" text NOT NULL,
	"received_on" date NOT NULL,
	CONSTRAINT "lot_code_unique" UNIQUE("code")
);
--> statement-breakpoint
CREATE TABLE "maker" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "maker_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	CONSTRAINT "maker_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "move" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "move_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"lot_id" integer NOT NULL,
	"kind" text NOT NULL,
	"on_hand" bigint NOT NULL,
	"reserved" bigint NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"batch_id" integer,
	"reverses" bigint,
	"person_id" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"action_key" text NOT NULL,
	CONSTRAINT "move_reverses_unique" UNIQUE("reverses"),
	CONSTRAINT "move_moves_something" CHECK ("move"."on_hand" <> 0 or "move"."reserved" <> 0),
	CONSTRAINT "move_kind" CHECK (case "move"."kind"
        when 'receive' then "move"."on_hand" > 0 and "move"."reserved" = 0
        when 'correction' then "move"."reserved" = 0
        when 'sale' then "move"."on_hand" < 0 and "move"."reserved" = 0
        when 'scrap' then "move"."on_hand" < 0 and "move"."reserved" = 0
        when 'reserve' then "move"."on_hand" = 0 and "move"."reserved" > 0 and "move"."batch_id" is not null
        when 'release' then "move"."on_hand" = 0 and "move"."reserved" < 0 and "move"."batch_id" is not null
        when 'reverse' then "move"."reverses" is not null
        else false end)
);
--> statement-breakpoint
ALTER TABLE "action" ADD CONSTRAINT "action_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_line" ADD CONSTRAINT "batch_line_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_line" ADD CONSTRAINT "batch_line_pattern_version_id_pattern_version_id_fk" FOREIGN KEY ("pattern_version_id") REFERENCES "public"."pattern_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_line" ADD CONSTRAINT "batch_line_colourway_version_id_colourway_version_id_fk" FOREIGN KEY ("colourway_version_id") REFERENCES "public"."colourway_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colourway" ADD CONSTRAINT "colourway_pattern_id_pattern_id_fk" FOREIGN KEY ("pattern_id") REFERENCES "public"."pattern"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colourway_choice" ADD CONSTRAINT "colourway_choice_colourway_version_id_colourway_version_id_fk" FOREIGN KEY ("colourway_version_id") REFERENCES "public"."colourway_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colourway_choice" ADD CONSTRAINT "colourway_choice_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colourway_version" ADD CONSTRAINT "colourway_version_colourway_id_colourway_id_fk" FOREIGN KEY ("colourway_id") REFERENCES "public"."colourway"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colourway_version" ADD CONSTRAINT "colourway_version_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pattern" ADD CONSTRAINT "pattern_saved_by_person_id_fk" FOREIGN KEY ("saved_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pattern_version" ADD CONSTRAINT "pattern_version_pattern_id_pattern_id_fk" FOREIGN KEY ("pattern_id") REFERENCES "public"."pattern"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pattern_version" ADD CONSTRAINT "pattern_version_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "balance" ADD CONSTRAINT "balance_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_maker_id_maker_id_fk" FOREIGN KEY ("maker_id") REFERENCES "public"."maker"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_reverses_move_id_fk" FOREIGN KEY ("reverses") REFERENCES "public"."move"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "session_expire" ON "session" USING btree ("expire");--> statement-breakpoint
CREATE INDEX "item_kind_size" ON "item" USING btree ("kind","size");--> statement-breakpoint
CREATE INDEX "lot_item" ON "lot" USING btree ("item_id","received_on","id");--> statement-breakpoint
CREATE INDEX "move_lot" ON "move" USING btree ("lot_id","id");--> statement-breakpoint
CREATE INDEX "move_batch" ON "move" USING btree ("batch_id");