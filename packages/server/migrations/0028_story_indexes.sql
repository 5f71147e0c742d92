DROP INDEX "move_lot";--> statement-breakpoint
CREATE INDEX "move_promise" ON "move" USING btree ("lot_id","batch_id","reserved") WHERE batch_id is not null;--> statement-breakpoint
CREATE INDEX "move_lot" ON "move" USING btree ("lot_id","id","at","on_hand","reserved");