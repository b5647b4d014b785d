CREATE TABLE "devices" (
	"piece" text PRIMARY KEY NOT NULL,
	"device" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "devices" ADD CONSTRAINT "devices_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;