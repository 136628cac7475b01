-- Tags of lines, and periods that are closed.
CREATE TABLE tag_sets(key INTEGER PRIMARY KEY, tags TEXT NOT NULL UNIQUE) STRICT;
CREATE TABLE closed_periods(
    first_day TEXT NOT NULL,
    last_day TEXT NOT NULL,
    revision INTEGER NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    PRIMARY KEY(first_day, last_day)) STRICT, WITHOUT ROWID;
