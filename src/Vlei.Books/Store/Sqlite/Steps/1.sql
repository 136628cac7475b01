-- The imports, what they brought with its history, and the postings that are derived from it.
CREATE TABLE imports(
    revision INTEGER PRIMARY KEY,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    complete INTEGER NOT NULL) STRICT;
CREATE TABLE import_files(
    revision INTEGER NOT NULL REFERENCES imports(revision),
    place INTEGER NOT NULL,
    path TEXT NOT NULL,
    sha256 TEXT NOT NULL,
    bytes INTEGER NOT NULL,
    PRIMARY KEY(revision, place)) STRICT, WITHOUT ROWID;
CREATE TABLE import_counts(
    revision INTEGER NOT NULL REFERENCES imports(revision),
    kind TEXT NOT NULL,
    added INTEGER NOT NULL,
    changed INTEGER NOT NULL,
    unchanged INTEGER NOT NULL,
    removed INTEGER NOT NULL,
    PRIMARY KEY(revision, kind)) STRICT, WITHOUT ROWID;
CREATE TABLE posting_months(
    basis INTEGER NOT NULL,
    month INTEGER NOT NULL,
    postings INTEGER NOT NULL,
    sums BLOB NOT NULL,
    checksum INTEGER NOT NULL,
    PRIMARY KEY(basis, month)) STRICT, WITHOUT ROWID;
CREATE TABLE posting_columns(
    basis INTEGER NOT NULL,
    month INTEGER NOT NULL,
    name TEXT NOT NULL,
    data BLOB NOT NULL,
    checksum INTEGER NOT NULL,
    PRIMARY KEY(basis, month, name)) STRICT;
CREATE TABLE accounts_keys(key INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE) STRICT;
CREATE TABLE accounts(
    key INTEGER NOT NULL REFERENCES accounts_keys(key),
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "name" TEXT NOT NULL,
    "type" TEXT NOT NULL,
    "parent" INTEGER REFERENCES accounts_keys(key),
    "active" INTEGER,
    "cash_flow" TEXT,
    tags TEXT,
    PRIMARY KEY(key, added)) STRICT, WITHOUT ROWID;
CREATE TABLE contacts_keys(key INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE) STRICT;
CREATE TABLE contacts(
    key INTEGER NOT NULL REFERENCES contacts_keys(key),
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "name" TEXT NOT NULL,
    "kind" TEXT NOT NULL,
    "email" TEXT,
    "phone" TEXT,
    "address" TEXT,
    "terms_days" INTEGER,
    "active" INTEGER,
    tags TEXT,
    PRIMARY KEY(key, added)) STRICT, WITHOUT ROWID;
CREATE TABLE items_keys(key INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE) STRICT;
CREATE TABLE items(
    key INTEGER NOT NULL REFERENCES items_keys(key),
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "name" TEXT NOT NULL,
    "kind" TEXT,
    "unit" TEXT,
    "active" INTEGER,
    tags TEXT,
    PRIMARY KEY(key, added)) STRICT, WITHOUT ROWID;
CREATE TABLE projects_keys(key INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE) STRICT;
CREATE TABLE projects(
    key INTEGER NOT NULL REFERENCES projects_keys(key),
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "name" TEXT NOT NULL,
    "contact" INTEGER REFERENCES contacts_keys(key),
    "active" INTEGER,
    tags TEXT,
    PRIMARY KEY(key, added)) STRICT, WITHOUT ROWID;
CREATE TABLE departments_keys(key INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE) STRICT;
CREATE TABLE departments(
    key INTEGER NOT NULL REFERENCES departments_keys(key),
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "name" TEXT NOT NULL,
    "active" INTEGER,
    tags TEXT,
    PRIMARY KEY(key, added)) STRICT, WITHOUT ROWID;
CREATE TABLE tax_codes_keys(key INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE) STRICT;
CREATE TABLE tax_codes(
    key INTEGER NOT NULL REFERENCES tax_codes_keys(key),
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "name" TEXT NOT NULL,
    "rate" INTEGER NOT NULL,
    "direction" TEXT,
    tags TEXT,
    PRIMARY KEY(key, added)) STRICT, WITHOUT ROWID;
CREATE TABLE documents_keys(key INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE) STRICT;
CREATE TABLE documents(
    key INTEGER NOT NULL REFERENCES documents_keys(key),
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "kind" TEXT NOT NULL,
    "date" TEXT NOT NULL,
    "due" TEXT,
    "number" TEXT,
    "contact" INTEGER REFERENCES contacts_keys(key),
    "reference" TEXT,
    "memo" TEXT,
    "batch" TEXT,
    "terms_days" INTEGER,
    "created_at" TEXT,
    "created_by" TEXT,
    "modified_at" TEXT,
    "modified_by" TEXT,
    "sent_at" TEXT,
    tags TEXT,
    PRIMARY KEY(key, added)) STRICT, WITHOUT ROWID;
CREATE TABLE lines(
    added INTEGER NOT NULL,
    "document" INTEGER NOT NULL,
    "account" INTEGER NOT NULL,
    "amount" INTEGER NOT NULL,
    "line" INTEGER NOT NULL,
    "contact" INTEGER,
    "item" INTEGER,
    "quantity" INTEGER,
    "unit_price" INTEGER,
    "tax_code" INTEGER,
    "tax_part" TEXT,
    "project" INTEGER,
    "department" INTEGER,
    "memo" TEXT,
    tags TEXT,
    PRIMARY KEY(document, added, line),
    FOREIGN KEY(document, added) REFERENCES documents(key, added)) STRICT, WITHOUT ROWID;
CREATE TABLE settlements(
    key INTEGER PRIMARY KEY,
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "from" INTEGER NOT NULL REFERENCES documents_keys(key),
    "to" INTEGER NOT NULL REFERENCES documents_keys(key),
    "amount" INTEGER NOT NULL,
    "date" TEXT,
    tags TEXT) STRICT;
CREATE TABLE budgets(
    key INTEGER PRIMARY KEY,
    added INTEGER NOT NULL REFERENCES imports(revision),
    replaced INTEGER REFERENCES imports(revision),
    hash INTEGER NOT NULL,
    "account" INTEGER NOT NULL REFERENCES accounts_keys(key),
    "month" TEXT NOT NULL,
    "amount" INTEGER NOT NULL,
    "project" INTEGER REFERENCES projects_keys(key),
    "department" INTEGER REFERENCES departments_keys(key),
    tags TEXT) STRICT;
