-- The books of a firm, who may see them and write to them, and in every table the rows of all books, each with the number of its book.
-- A login sees the rows of those books alone that were granted to it; the owner of the schema makes the tables and nothing else.
CREATE TABLE steps(step integer PRIMARY KEY);
CREATE TABLE books(
    book integer GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name text NOT NULL UNIQUE,
    settings text NOT NULL,
    oldest_first boolean NOT NULL DEFAULT false,
    derived_format bigint NOT NULL DEFAULT 0,
    hash_format bigint NOT NULL DEFAULT 0);
CREATE TABLE grants(
    book integer NOT NULL REFERENCES books(book) ON DELETE CASCADE,
    role name NOT NULL,
    may_write boolean NOT NULL,
    PRIMARY KEY(book, role));
CREATE FUNCTION readable_books() RETURNS integer[] LANGUAGE sql STABLE SECURITY DEFINER SET search_path FROM CURRENT AS $$
    SELECT coalesce(array_agg(g.book), '{}') FROM grants g JOIN pg_catalog.pg_roles r ON r.rolname = g.role
    WHERE pg_catalog.pg_has_role(session_user, r.oid, 'MEMBER') $$;
CREATE FUNCTION writable_books() RETURNS integer[] LANGUAGE sql STABLE SECURITY DEFINER SET search_path FROM CURRENT AS $$
    SELECT coalesce(array_agg(g.book), '{}') FROM grants g JOIN pg_catalog.pg_roles r ON r.rolname = g.role
    WHERE g.may_write AND pg_catalog.pg_has_role(session_user, r.oid, 'MEMBER') $$;
CREATE TABLE imports(
    book integer NOT NULL, revision bigint NOT NULL, at text NOT NULL, by text NOT NULL, complete boolean NOT NULL,
    PRIMARY KEY(book, revision));
CREATE TABLE import_files(
    book integer NOT NULL, revision bigint NOT NULL, place bigint NOT NULL, path text NOT NULL, sha256 text NOT NULL,
    bytes bigint NOT NULL,
    PRIMARY KEY(book, revision, place));
CREATE TABLE import_counts(
    book integer NOT NULL, revision bigint NOT NULL, kind text NOT NULL, added bigint NOT NULL, changed bigint NOT NULL,
    unchanged bigint NOT NULL, removed bigint NOT NULL,
    PRIMARY KEY(book, revision, kind));
CREATE TABLE tag_sets(book integer NOT NULL, key integer NOT NULL, tags text NOT NULL, PRIMARY KEY(book, key));
CREATE TABLE closed_periods(
    book integer NOT NULL, first_day text NOT NULL, last_day text NOT NULL, revision bigint NOT NULL, at text NOT NULL,
    by text NOT NULL,
    PRIMARY KEY(book, first_day, last_day));
CREATE TABLE derived_months(
    book integer NOT NULL, kind integer NOT NULL, month integer NOT NULL, rows integer NOT NULL, sums bytea NOT NULL,
    checksum bigint NOT NULL,
    PRIMARY KEY(book, kind, month));
CREATE TABLE derived_columns(
    book integer NOT NULL, kind integer NOT NULL, month integer NOT NULL, name text NOT NULL, data bytea NOT NULL,
    checksum bigint NOT NULL,
    PRIMARY KEY(book, kind, month, name));
-- Blobs are packed already.
ALTER TABLE derived_columns ALTER COLUMN data SET STORAGE EXTERNAL;
CREATE TABLE accounts_keys(
    book integer NOT NULL, key integer NOT NULL, id text NOT NULL,
    PRIMARY KEY(book, key), UNIQUE(book, id));
CREATE TABLE accounts(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "name" text NOT NULL,
    "type" text NOT NULL,
    "parent" integer,
    "active" bigint,
    "cash_flow" text,
    tags text,
    PRIMARY KEY(book, key, added));
CREATE TABLE contacts_keys(
    book integer NOT NULL, key integer NOT NULL, id text NOT NULL,
    PRIMARY KEY(book, key), UNIQUE(book, id));
CREATE TABLE contacts(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "name" text NOT NULL,
    "kind" text NOT NULL,
    "email" text,
    "phone" text,
    "address" text,
    "terms_days" bigint,
    "active" bigint,
    tags text,
    PRIMARY KEY(book, key, added));
CREATE TABLE items_keys(
    book integer NOT NULL, key integer NOT NULL, id text NOT NULL,
    PRIMARY KEY(book, key), UNIQUE(book, id));
CREATE TABLE items(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "name" text NOT NULL,
    "kind" text,
    "unit" text,
    "active" bigint,
    tags text,
    PRIMARY KEY(book, key, added));
CREATE TABLE projects_keys(
    book integer NOT NULL, key integer NOT NULL, id text NOT NULL,
    PRIMARY KEY(book, key), UNIQUE(book, id));
CREATE TABLE projects(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "name" text NOT NULL,
    "contact" integer,
    "active" bigint,
    tags text,
    PRIMARY KEY(book, key, added));
CREATE TABLE departments_keys(
    book integer NOT NULL, key integer NOT NULL, id text NOT NULL,
    PRIMARY KEY(book, key), UNIQUE(book, id));
CREATE TABLE departments(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "name" text NOT NULL,
    "active" bigint,
    tags text,
    PRIMARY KEY(book, key, added));
CREATE TABLE tax_codes_keys(
    book integer NOT NULL, key integer NOT NULL, id text NOT NULL,
    PRIMARY KEY(book, key), UNIQUE(book, id));
CREATE TABLE tax_codes(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "name" text NOT NULL,
    "rate" bigint NOT NULL,
    "direction" text,
    tags text,
    PRIMARY KEY(book, key, added));
CREATE TABLE documents_keys(
    book integer NOT NULL, key integer NOT NULL, id text NOT NULL,
    PRIMARY KEY(book, key), UNIQUE(book, id));
CREATE TABLE documents(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "kind" text NOT NULL,
    "date" text NOT NULL,
    "due" text,
    "number" text,
    "contact" integer,
    "reference" text,
    "memo" text,
    "batch" text,
    "terms_days" bigint,
    "created_at" text,
    "created_by" text,
    "modified_at" text,
    "modified_by" text,
    "sent_at" text,
    tags text,
    PRIMARY KEY(book, key, added));
CREATE TABLE lines(
    book integer NOT NULL,
    added bigint NOT NULL,
    "document" integer NOT NULL,
    "account" integer NOT NULL,
    "amount" bigint NOT NULL,
    "line" bigint NOT NULL,
    "contact" integer,
    "item" integer,
    "quantity" bigint,
    "unit_price" bigint,
    "tax_code" integer,
    "tax_part" text,
    "project" integer,
    "department" integer,
    "memo" text,
    tags text,
    PRIMARY KEY(book, document, added, line));
CREATE TABLE settlements(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "from" integer NOT NULL,
    "to" integer NOT NULL,
    "amount" bigint NOT NULL,
    "date" text,
    tags text,
    PRIMARY KEY(book, key));
CREATE TABLE budgets(
    book integer NOT NULL,
    key integer NOT NULL,
    added bigint NOT NULL,
    replaced bigint,
    hash bigint NOT NULL,
    "account" integer NOT NULL,
    "month" text NOT NULL,
    "amount" bigint NOT NULL,
    "project" integer,
    "department" integer,
    tags text,
    PRIMARY KEY(book, key));
ALTER TABLE books ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON books FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON books FOR UPDATE USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE imports ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON imports FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON imports FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE import_files ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON import_files FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON import_files FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE import_counts ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON import_counts FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON import_counts FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE tag_sets ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON tag_sets FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON tag_sets FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE closed_periods ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON closed_periods FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON closed_periods FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE derived_months ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON derived_months FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON derived_months FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE derived_columns ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON derived_columns FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON derived_columns FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE accounts_keys ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON accounts_keys FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON accounts_keys FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE accounts ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON accounts FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON accounts FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE contacts_keys ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON contacts_keys FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON contacts_keys FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE contacts ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON contacts FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON contacts FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE items_keys ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON items_keys FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON items_keys FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE items ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON items FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON items FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE projects_keys ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON projects_keys FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON projects_keys FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE projects ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON projects FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON projects FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE departments_keys ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON departments_keys FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON departments_keys FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE departments ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON departments FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON departments FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE tax_codes_keys ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON tax_codes_keys FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON tax_codes_keys FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE tax_codes ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON tax_codes FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON tax_codes FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE documents_keys ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON documents_keys FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON documents_keys FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE documents ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON documents FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON documents FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE lines ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON lines FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON lines FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE settlements ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON settlements FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON settlements FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
ALTER TABLE budgets ENABLE ROW LEVEL SECURITY;
CREATE POLICY read_granted ON budgets FOR SELECT USING (book = ANY ((SELECT readable_books())::integer[]));
CREATE POLICY write_granted ON budgets FOR ALL USING (book = ANY ((SELECT writable_books())::integer[]));
INSERT INTO steps VALUES (1);
