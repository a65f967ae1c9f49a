ALTER TABLE "instrument" ALTER COLUMN "resolution_ug" SET DATA TYPE double precision;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "scale_unit" text;--> statement-breakpoint
-- A resolution in ounces was cut to whole micrograms: 0.1 oz is 2 834 952.3125.
UPDATE "instrument" SET "resolution_ug" = round("resolution_ug" / 28349.523125) * 28349.523125
  WHERE mod("resolution_ug"::numeric, 1000) <> 0 AND round("resolution_ug" / 28349.523125) > 0
    AND abs("resolution_ug" - round("resolution_ug" / 28349.523125) * 28349.523125) < 1;
