CREATE TABLE "handovers" (
	"id" serial PRIMARY KEY NOT NULL,
	"hash" text NOT NULL,
	"piece" text NOT NULL,
	"packed" "bytea" NOT NULL,
	"lent" jsonb NOT NULL,
	"formats" jsonb NOT NULL,
	"tuned" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"tuned_at" timestamp with time zone,
	"made" timestamp with time zone DEFAULT now() NOT NULL,
	"until" timestamp with time zone,
	"withdrawn" timestamp with time zone,
	CONSTRAINT "handovers_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "patterns" (
	"id" text PRIMARY KEY NOT NULL,
	"title" text NOT NULL,
	"packed" "bytea" NOT NULL,
	"made" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "pieces" ADD COLUMN "folder" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "handovers" ADD CONSTRAINT "handovers_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "handovers_piece" ON "handovers" USING btree ("piece");