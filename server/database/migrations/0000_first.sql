CREATE TABLE "pieces" (
	"id" text PRIMARY KEY NOT NULL,
	"title" text NOT NULL,
	"document" jsonb NOT NULL,
	"revision" integer NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"changed" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "revisions" (
	"id" serial PRIMARY KEY NOT NULL,
	"piece" text NOT NULL,
	"revision" integer NOT NULL,
	"document" jsonb NOT NULL,
	"state" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "revisions" ADD CONSTRAINT "revisions_piece_pieces_id_fk" FOREIGN KEY ("piece") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "revisions_piece" ON "revisions" USING btree ("piece","revision");