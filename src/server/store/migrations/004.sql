-- The sun that was found in a captured image, as JSON: height, lux, kelvin, radius; 'null' when there is none.
ALTER TABLE captured_images ADD COLUMN sun_json TEXT;
