-- Who is called when something is found about a home's units: as its latest visit knows it.
ALTER TABLE homes ADD COLUMN phone VARCHAR(40) NULL;
