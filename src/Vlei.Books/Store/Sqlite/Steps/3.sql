-- What is derived are open items and what was set against them too; all of it is made anew.
DROP TABLE posting_months;
DROP TABLE posting_columns;
CREATE TABLE derived_months(
    kind INTEGER NOT NULL,
    month INTEGER NOT NULL,
    rows INTEGER NOT NULL,
    sums BLOB NOT NULL,
    checksum INTEGER NOT NULL,
    PRIMARY KEY(kind, month)) STRICT, WITHOUT ROWID;
CREATE TABLE derived_columns(
    kind INTEGER NOT NULL,
    month INTEGER NOT NULL,
    name TEXT NOT NULL,
    data BLOB NOT NULL,
    checksum INTEGER NOT NULL,
    PRIMARY KEY(kind, month, name)) STRICT;
CREATE TABLE derived_how(oldest_first INTEGER NOT NULL) STRICT;
INSERT INTO derived_how VALUES (0);
