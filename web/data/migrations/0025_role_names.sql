-- A reader is called a viewer, and a maker an editor.
UPDATE member SET role = CASE role WHEN 'reader' THEN 'viewer' ELSE 'editor' END WHERE role IN ('reader', 'maker');
--> statement-breakpoint
UPDATE invitation SET role = CASE role WHEN 'reader' THEN 'viewer' ELSE 'editor' END WHERE role IN ('reader', 'maker');
--> statement-breakpoint
UPDATE device SET role = CASE role WHEN 'reader' THEN 'viewer' ELSE 'editor' END WHERE role IN ('reader', 'maker');
