import type { MigrationInterface, QueryRunner } from 'typeorm';

/** First schema: accounts and sessions, cases with their ledger, pictures as content-addressed bytes, gauges. */
export class FirstSchema1795000000000 implements MigrationInterface {
  readonly name = 'FirstSchema1795000000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      CREATE TABLE accounts (
        id uuid PRIMARY KEY, name text NOT NULL, "signIn" text NOT NULL UNIQUE, "passwordHash" text NOT NULL,
        role text NOT NULL CHECK (role IN ('owner', 'builder', 'reader')), active boolean NOT NULL DEFAULT true, created timestamptz NOT NULL DEFAULT now());
      CREATE TABLE sessions (
        id uuid PRIMARY KEY, "tokenHash" text NOT NULL UNIQUE, "accountId" uuid NOT NULL REFERENCES accounts(id), agent text NOT NULL,
        created timestamptz NOT NULL DEFAULT now(), "lastSeen" timestamptz NOT NULL, expires timestamptz NOT NULL);
      CREATE TABLE claims ("tokenHash" text PRIMARY KEY, expires timestamptz NOT NULL);
      CREATE TABLE cases (
        id uuid PRIMARY KEY, number text NOT NULL UNIQUE, title text NOT NULL, reference text NOT NULL, seq integer NOT NULL, head text NOT NULL,
        state jsonb NOT NULL, "stateSeq" integer NOT NULL, summary jsonb NOT NULL, updated timestamptz NOT NULL);
      CREATE TABLE entries (
        id uuid PRIMARY KEY, "caseId" uuid NOT NULL REFERENCES cases(id), seq integer NOT NULL, kind text NOT NULL, station text,
        "authorId" uuid NOT NULL, "authorName" text NOT NULL, time text NOT NULL, supersedes uuid, body jsonb, salt text NOT NULL,
        "bodyHash" text NOT NULL, prev text NOT NULL, hash text NOT NULL, UNIQUE ("caseId", seq));
      CREATE TABLE photos (
        sha256 text PRIMARY KEY, mime text NOT NULL, width integer NOT NULL, height integer NOT NULL,
        original bytea NOT NULL, work bytea NOT NULL, thumb bytea NOT NULL);
      CREATE TABLE case_photos ("caseId" uuid NOT NULL REFERENCES cases(id), sha256 text NOT NULL REFERENCES photos(sha256), PRIMARY KEY ("caseId", sha256));
      CREATE TABLE gauges (id text PRIMARY KEY, gauge jsonb NOT NULL);
      CREATE SEQUENCE case_numbers;
      CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          IF TG_OP = 'DELETE' THEN RAISE EXCEPTION 'ledger entries are never deleted'; END IF;
          IF NEW.body IS NOT NULL OR ROW(NEW.id, NEW."caseId", NEW.seq, NEW.kind, NEW.station, NEW."authorId", NEW."authorName", NEW.time, NEW.supersedes, NEW."bodyHash", NEW.prev, NEW.hash)
             IS DISTINCT FROM ROW(OLD.id, OLD."caseId", OLD.seq, OLD.kind, OLD.station, OLD."authorId", OLD."authorName", OLD.time, OLD.supersedes, OLD."bodyHash", OLD.prev, OLD.hash)
          THEN RAISE EXCEPTION 'ledger entries are never edited'; END IF;
          RETURN NEW;
        END $$;
      CREATE TRIGGER entries_are_kept BEFORE UPDATE OR DELETE ON entries FOR EACH ROW EXECUTE FUNCTION refuse_change();
    `);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      'DROP TABLE gauges, case_photos, photos, entries, cases, claims, sessions, accounts; DROP SEQUENCE case_numbers; DROP FUNCTION refuse_change();',
    );
  }
}

/** Shop-wide spec sheets with all their versions, sound and film, and the blurred renditions of pictures. */
export class SheetsAndClips1795600000000 implements MigrationInterface {
  readonly name = 'SheetsAndClips1795600000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      CREATE TABLE spec_sheets (id text NOT NULL, version integer NOT NULL, body jsonb NOT NULL, "authorName" text NOT NULL, time timestamptz NOT NULL, PRIMARY KEY (id, version));
      CREATE TABLE clips (sha256 text PRIMARY KEY, mime text NOT NULL, bytes bytea NOT NULL);
      CREATE TABLE case_clips ("caseId" uuid NOT NULL REFERENCES cases(id), sha256 text NOT NULL REFERENCES clips(sha256), PRIMARY KEY ("caseId", sha256));
      ALTER TABLE case_photos ADD COLUMN "sharedEntry" uuid, ADD COLUMN "sharedWork" bytea, ADD COLUMN "sharedThumb" bytea;
    `);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE case_photos DROP COLUMN "sharedEntry", DROP COLUMN "sharedWork", DROP COLUMN "sharedThumb"; DROP TABLE case_clips, clips, spec_sheets;',
    );
  }
}

/** Checks of gauges, gauge stand-ins, and spec sheets with sizes and limits by kind of place instead of two journals. */
export class Gauges1795700000000 implements MigrationInterface {
  readonly name = 'Gauges1795700000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      CREATE TABLE gauge_checks (
        id uuid PRIMARY KEY, "gaugeId" text NOT NULL, "masterMm" double precision NOT NULL, "readMm" double precision NOT NULL,
        note text NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);
      CREATE INDEX gauge_checks_of ON gauge_checks ("gaugeId", time);
      CREATE TABLE stand_ins ("gaugeId" text PRIMARY KEY, faults jsonb NOT NULL, count integer NOT NULL, last text, at jsonb);
      UPDATE spec_sheets SET body = (body - 'pin' - 'main') || jsonb_build_object('specs',
        jsonb_strip_nulls(jsonb_build_object('crank.pin', NULLIF(body->'pin', 'null'), 'crank.main', NULLIF(body->'main', 'null'))))
        WHERE NOT body ? 'specs';
    `);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE stand_ins, gauge_checks;');
  }
}

/** Jobs that read pictures, the shop's grade book, and parts as they should be. */
export class ReadingPictures1795800000000 implements MigrationInterface {
  readonly name = 'ReadingPictures1795800000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      CREATE TABLE reading_items (
        id uuid PRIMARY KEY, "caseId" uuid NOT NULL REFERENCES cases(id), batch uuid NOT NULL, n integer NOT NULL, station text NOT NULL, sha256 text NOT NULL,
        status text NOT NULL, note text NOT NULL, "byId" text NOT NULL, "byName" text NOT NULL, made timestamptz NOT NULL, taken timestamptz);
      CREATE INDEX reading_items_of ON reading_items ("caseId", made);
      CREATE TABLE grade_books (version integer PRIMARY KEY, rules jsonb NOT NULL, note text NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);
      CREATE TABLE reference_parts (
        id uuid PRIMARY KEY, name text NOT NULL, part text NOT NULL, note text NOT NULL, sha256 text NOT NULL REFERENCES photos(sha256), width integer NOT NULL,
        height integer NOT NULL, corners jsonb, readings jsonb NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);
    `);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE reference_parts, grade_books, reading_items;');
  }
}

export class Policy1795900000000 implements MigrationInterface {
  readonly name = 'Policy1795900000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      'CREATE TABLE policy (id serial PRIMARY KEY, question text NOT NULL, position text NOT NULL, reason text NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);',
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE policy;');
  }
}

/** Signed accounts, links to them, who is on which case, the shop's prices. */
export class Documents1796000000000 implements MigrationInterface {
  readonly name = 'Documents1796000000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      ALTER TABLE case_photos ADD "accountKey" text, ADD "accountPicture" bytea;
      CREATE TABLE signed_accounts (
        "caseId" uuid NOT NULL REFERENCES cases(id), version integer NOT NULL, sha256 text NOT NULL, pdf bytea NOT NULL, PRIMARY KEY ("caseId", version));
      CREATE TABLE share_links (
        id uuid PRIMARY KEY, "tokenHash" text NOT NULL UNIQUE, "caseId" uuid NOT NULL, version integer NOT NULL, note text NOT NULL, "byName" text NOT NULL,
        made timestamptz NOT NULL, expires timestamptz NOT NULL, revoked timestamptz, opened integer NOT NULL DEFAULT 0, "lastOpened" timestamptz,
        FOREIGN KEY ("caseId", version) REFERENCES signed_accounts ("caseId", version));
      CREATE INDEX share_links_of ON share_links ("caseId");
      CREATE TABLE presence (
        page uuid PRIMARY KEY, "caseId" uuid NOT NULL, "accountId" uuid NOT NULL, name text NOT NULL, place text NOT NULL, seen timestamptz NOT NULL);
      CREATE INDEX presence_of ON presence ("caseId", seen);
      CREATE TABLE price_books (version integer PRIMARY KEY, book jsonb NOT NULL, note text NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);
    `);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      'DROP TABLE price_books, presence, share_links, signed_accounts; ALTER TABLE case_photos DROP "accountKey", DROP "accountPicture";',
    );
  }
}

/** Where entries come from, how old the figures beside a case are, who sees which cases, links of the first run. */
export class Ground1796100000000 implements MigrationInterface {
  readonly name = 'Ground1796100000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      ALTER TABLE entries ADD origin text;
      CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          IF TG_OP = 'DELETE' THEN RAISE EXCEPTION 'ledger entries are never deleted'; END IF;
          IF NEW.body IS NOT NULL OR ROW(NEW.id, NEW."caseId", NEW.seq, NEW.kind, NEW.station, NEW."authorId", NEW."authorName", NEW.time, NEW.supersedes, NEW."bodyHash", NEW.prev, NEW.hash, NEW.origin)
             IS DISTINCT FROM ROW(OLD.id, OLD."caseId", OLD.seq, OLD.kind, OLD.station, OLD."authorId", OLD."authorName", OLD.time, OLD.supersedes, OLD."bodyHash", OLD.prev, OLD.hash, OLD.origin)
          THEN RAISE EXCEPTION 'ledger entries are never edited'; END IF;
          RETURN NEW;
        END $$;
      ALTER TABLE cases ADD "summarySeq" integer NOT NULL DEFAULT 0;
      UPDATE cases SET "summarySeq" = seq;
      CREATE INDEX cases_by_time ON cases (updated DESC, id);
      CREATE INDEX cases_behind ON cases (id) WHERE "summarySeq" < seq;
      ALTER TABLE claims ADD "accountId" uuid REFERENCES accounts(id);
      ALTER TABLE case_photos ADD "sharedKey" text, DROP "sharedEntry";
      UPDATE case_photos SET "sharedWork" = NULL, "sharedThumb" = NULL, "accountKey" = NULL, "accountPicture" = NULL;
      ALTER TABLE accounts ADD "allCases" boolean NOT NULL DEFAULT true;
      CREATE TABLE daily_seals (day text PRIMARY KEY, statement jsonb NOT NULL, signature text NOT NULL);
      CREATE TABLE account_cases (
        "accountId" uuid NOT NULL REFERENCES accounts(id), "caseId" uuid NOT NULL REFERENCES cases(id), PRIMARY KEY ("accountId", "caseId"));
    `);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      'DROP TABLE account_cases, daily_seals; ALTER TABLE claims DROP "accountId"; ALTER TABLE case_photos ADD "sharedEntry" uuid, DROP "sharedKey"; ALTER TABLE accounts DROP "allCases"; DROP INDEX cases_behind, cases_by_time; ALTER TABLE cases DROP "summarySeq"; ALTER TABLE entries DROP origin;',
    );
  }
}

/** Time-stamps on the daily seals; who the shop is, and for whom a case is, beside the ledger; what the shelf is searched by, kept ready. */
export class Witness1796200000000 implements MigrationInterface {
  readonly name = 'Witness1796200000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      ALTER TABLE daily_seals ADD stamp bytea;
      CREATE TABLE shop_record (id smallint PRIMARY KEY CHECK (id = 1), letterhead jsonb NOT NULL, version integer NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);
      CREATE TABLE case_parties ("caseId" uuid PRIMARY KEY REFERENCES cases (id), parties jsonb NOT NULL, version integer NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);
      ALTER TABLE share_links ADD cover boolean NOT NULL DEFAULT false;
      ALTER TABLE cases
        ADD shelved boolean GENERATED ALWAYS AS (summary ? 'shelved') STORED,
        ADD words text GENERATED ALWAYS AS
          (lower(number || ' ' || title || ' ' || reference || ' ' || coalesce(summary->>'engine', '') || ' ' || coalesce(summary->>'leading', ''))) STORED;
    `);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE cases DROP shelved, DROP words; DROP TABLE shop_record, case_parties; ALTER TABLE share_links DROP cover; ALTER TABLE daily_seals DROP stamp',
    );
  }
}

/** Photographed surfaces as the bench shows them. */
export class Surfaces1796300000000 implements MigrationInterface {
  readonly name = 'Surfaces1796300000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      CREATE TABLE surface_renditions (
        "caseId" uuid NOT NULL REFERENCES cases (id), station text NOT NULL, shared boolean NOT NULL, key text NOT NULL,
        large bytea NOT NULL, middle bytea NOT NULL, small bytea NOT NULL, PRIMARY KEY ("caseId", station, shared));
      -- The shelf draws the engine unrolled: its figures are computed anew.
      UPDATE cases SET "summarySeq" = LEAST("summarySeq", seq - 1)`);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE surface_renditions');
  }
}

/** Whom a case waits for and who wrote in it stand among its figures, which are computed anew. */
export class Waits1796400000000 implements MigrationInterface {
  readonly name = 'Waits1796400000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query('UPDATE cases SET "summarySeq" = LEAST("summarySeq", seq - 1)');
  }

  async down(): Promise<void> {
    // What was added to the figures does no harm to an earlier version.
  }
}

/** Letters as the shop words them. */
export class Letters1796500000000 implements MigrationInterface {
  readonly name = 'Letters1796500000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      ALTER TABLE shop_record ADD letters jsonb NOT NULL DEFAULT '{}',
        ALTER letterhead SET DEFAULT '{"name": "", "address": "", "contact": "", "register": ""}'`);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE shop_record DROP letters, ALTER letterhead DROP DEFAULT');
  }
}

/** Engines as records of their own, their logs, the cases that hang on them. */
export class Engines1796600000000 implements MigrationInterface {
  readonly name = 'Engines1796600000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      CREATE TABLE engines (
        id uuid PRIMARY KEY, record jsonb NOT NULL, version integer NOT NULL, "mergedInto" uuid REFERENCES engines (id), "byName" text NOT NULL, time timestamptz NOT NULL,
        CHECK ("mergedInto" <> id));
      CREATE UNIQUE INDEX engines_by_mark ON engines (lower(record->>'mark'));
      CREATE TABLE engine_lines (
        id uuid PRIMARY KEY, "engineId" uuid NOT NULL REFERENCES engines (id), n serial, kind text NOT NULL, day text NOT NULL, counter double precision,
        supersedes uuid REFERENCES engine_lines (id), body jsonb NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);
      CREATE INDEX engine_lines_of ON engine_lines ("engineId", n);
      -- Of two who replace the same line at once the database lets one.
      CREATE UNIQUE INDEX engine_lines_replaced ON engine_lines (supersedes) WHERE supersedes IS NOT NULL;
      CREATE FUNCTION refuse_line_change() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN RAISE EXCEPTION 'lines of a log are never edited'; END $$;
      CREATE TRIGGER engine_lines_stay BEFORE UPDATE OR DELETE ON engine_lines FOR EACH ROW EXECUTE FUNCTION refuse_line_change();
      CREATE TABLE case_engines (
        id serial PRIMARY KEY, "caseId" uuid NOT NULL REFERENCES cases (id), "engineId" uuid REFERENCES engines (id), "byName" text NOT NULL, time timestamptz NOT NULL);
      CREATE INDEX case_engines_of ON case_engines ("caseId", id DESC);
      CREATE INDEX case_engines_at ON case_engines ("engineId");
      CREATE TABLE laboratory_orders (
        id uuid PRIMARY KEY, "engineId" uuid NOT NULL REFERENCES engines (id), reference text NOT NULL, fault text NOT NULL, due timestamptz NOT NULL, reported timestamptz);
      CREATE UNIQUE INDEX laboratory_orders_by_reference ON laboratory_orders (reference)`);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE laboratory_orders, case_engines, engine_lines, engines; DROP FUNCTION refuse_line_change');
  }
}

/** What is counted across cases, and words by which a case is found again. */
export class Across1796700000000 implements MigrationInterface {
  readonly name = 'Across1796700000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      ALTER TABLE cases
        ADD facts jsonb,
        ADD found tsvector GENERATED ALWAYS AS (to_tsvector('simple', coalesce(facts->>'words', ''))) STORED;
      CREATE INDEX cases_found ON cases USING gin (found);
      CREATE TABLE shop_switches (name text PRIMARY KEY, "on" boolean NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL);
      UPDATE cases SET "summarySeq" = LEAST("summarySeq", seq - 1)`);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE cases DROP found, DROP facts; DROP TABLE shop_switches');
  }
}

/** Answers to drills. */
export class Drills1796800000000 implements MigrationInterface {
  readonly name = 'Drills1796800000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      CREATE TABLE drill_answers (
        id uuid PRIMARY KEY, "accountId" uuid NOT NULL REFERENCES accounts (id), card text NOT NULL, seed integer NOT NULL, given text NOT NULL, "right" boolean NOT NULL, "tookMs" integer NOT NULL,
        time timestamptz NOT NULL);
      CREATE INDEX drill_answers_of ON drill_answers ("accountId", time)`);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE drill_answers');
  }
}

/** Practice engines, with the seeds their causes follow from. */
export class PracticeEngines1796900000000 implements MigrationInterface {
  readonly name = 'PracticeEngines1796900000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(`
      CREATE SEQUENCE practice_numbers;
      CREATE TABLE practice_engines (
        "caseId" uuid PRIMARY KEY REFERENCES cases (id), n integer NOT NULL, level integer NOT NULL, seed integer NOT NULL, version integer NOT NULL, sealed boolean NOT NULL,
        "accountId" uuid NOT NULL, "byName" text NOT NULL, time timestamptz NOT NULL, opened timestamptz);
      CREATE INDEX practice_engines_by_time ON practice_engines (time DESC)`);
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('DROP TABLE practice_engines; DROP SEQUENCE practice_numbers');
  }
}
