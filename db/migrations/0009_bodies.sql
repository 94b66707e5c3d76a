-- A converted body is called "Camera, conversion" wherever it is named; verdicts and house choices had it without the comma.
update verdict v set camera = f.camera || ', ' || f.conversion from frame f where f.id = v.frame_id and f.conversion <> '' and v.camera = f.camera || ' ' || f.conversion;
update house_choice h set camera = f.camera || ', ' || f.conversion from frame f where f.conversion <> '' and h.camera = f.camera || ' ' || f.conversion;
