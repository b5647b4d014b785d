ALTER TABLE "pieces" ALTER COLUMN "document" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "revisions" ALTER COLUMN "document" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "pieces" ADD COLUMN "packed" "bytea";--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "packed" "bytea";--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "save" text;--> statement-breakpoint
CREATE INDEX "revisions_save" ON "revisions" USING btree ("piece","save");