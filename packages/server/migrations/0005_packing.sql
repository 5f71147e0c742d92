CREATE TABLE "bag" (
	"batch_id" integer NOT NULL,
	"line" integer NOT NULL,
	"kit" integer NOT NULL,
	"item_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"quantity" bigint NOT NULL,
	"person_id" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "bag_batch_id_line_kit_item_id_pk" PRIMARY KEY("batch_id","line","kit","item_id"),
	CONSTRAINT "bag_figures" CHECK ("bag"."kit" > 0 and "bag"."quantity" > 0)
);
--> statement-breakpoint
CREATE TABLE "batch_take" (
	"batch_id" integer NOT NULL,
	"line" integer NOT NULL,
	"item_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"kits" integer NOT NULL,
	"least" bigint NOT NULL,
	"target" bigint NOT NULL,
	"most" bigint NOT NULL,
	"roles" text NOT NULL,
	CONSTRAINT "batch_take_batch_id_line_item_id_lot_id_pk" PRIMARY KEY("batch_id","line","item_id","lot_id"),
	CONSTRAINT "batch_take_figures" CHECK ("batch_take"."kits" > 0 and "batch_take"."least" > 0 and "batch_take"."least" <= "batch_take"."target" and "batch_take"."target" <= "batch_take"."most")
);
--> statement-breakpoint
ALTER TABLE "batch" DROP CONSTRAINT "batch_state";--> statement-breakpoint
ALTER TABLE "move" DROP CONSTRAINT "move_kind";--> statement-breakpoint
ALTER TABLE "bag" ADD CONSTRAINT "bag_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bag" ADD CONSTRAINT "bag_batch_id_line_item_id_lot_id_batch_take_batch_id_line_item_id_lot_id_fk" FOREIGN KEY ("batch_id","line","item_id","lot_id") REFERENCES "public"."batch_take"("batch_id","line","item_id","lot_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_take" ADD CONSTRAINT "batch_take_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_take" ADD CONSTRAINT "batch_take_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_take" ADD CONSTRAINT "batch_take_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_state" CHECK ("batch"."state" in ('draft', 'reserved', 'packing', 'packed', 'closed', 'cancelled'));--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_kind" CHECK (case "move"."kind"
        when 'receive' then "move"."on_hand" > 0 and "move"."reserved" = 0
        when 'correction' then "move"."reserved" = 0
        when 'sale' then "move"."on_hand" < 0 and "move"."reserved" = 0
        when 'scrap' then "move"."on_hand" < 0 and "move"."reserved" = 0
        when 'reserve' then "move"."on_hand" = 0 and "move"."reserved" > 0 and "move"."batch_id" is not null
        when 'release' then "move"."on_hand" = 0 and "move"."reserved" < 0 and "move"."batch_id" is not null
        when 'issue' then "move"."on_hand" < 0 and "move"."reserved" <= 0 and "move"."batch_id" is not null
        when 'reverse' then "move"."reverses" is not null
        else false end);