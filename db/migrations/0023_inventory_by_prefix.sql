-- A plan looks at each station for the few files that begin as its own will be called, whatever else lies there.
create index inventory_folded on inventory (station_id, lower(path) text_pattern_ops);
