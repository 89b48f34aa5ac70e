package store

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
)

// migrations bring a data file from any earlier version to this one, in order.
// They are written in SQL and never changed once released: a file made by an
// old version must go the same way as it would have then.
var migrations = []*gormigrate.Migration{
	{ID: "0001-documents", Migrate: statements(
		`CREATE TABLE documents (
			id         INTEGER PRIMARY KEY AUTOINCREMENT,
			kind       TEXT NOT NULL CHECK (kind IN ('chart', 'lick', 'line')),
			name       TEXT NOT NULL,
			body       BLOB NOT NULL,
			version    INTEGER NOT NULL CHECK (version >= 1),
			chart_id   INTEGER REFERENCES documents (id),
			created_at DATETIME NOT NULL,
			updated_at DATETIME NOT NULL,
			deleted_at DATETIME
		)`,
		`CREATE INDEX documents_by_kind ON documents (kind, deleted_at)`,
		`CREATE INDEX documents_by_chart ON documents (chart_id)`,
		`CREATE TABLE revisions (
			document_id INTEGER NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
			version     INTEGER NOT NULL,
			name        TEXT NOT NULL,
			body        BLOB NOT NULL,
			saved_at    DATETIME NOT NULL,
			PRIMARY KEY (document_id, version)
		)`,
	)},
	{ID: "0002-practised", Migrate: statements(
		`ALTER TABLE documents ADD COLUMN practised_at DATETIME`,
	)},
	{ID: "0003-settings", Migrate: statements(
		`CREATE TABLE settings (
			name       TEXT PRIMARY KEY,
			body       BLOB NOT NULL,
			version    INTEGER NOT NULL CHECK (version >= 1),
			updated_at DATETIME NOT NULL
		)`,
	)},
	// The kinds are held by a check of the table, which SQLite cannot change: both tables
	// are made anew. They are copied to tables without keys first, since dropping
	// documents would take their revisions with them.
	{ID: "0004-solos", Migrate: statements(
		`CREATE TABLE documents_before AS SELECT * FROM documents`,
		`CREATE TABLE revisions_before AS SELECT * FROM revisions`,
		`DROP TABLE revisions`,
		`DROP TABLE documents`,
		`CREATE TABLE documents (
			id           INTEGER PRIMARY KEY AUTOINCREMENT,
			kind         TEXT NOT NULL CHECK (kind IN ('chart', 'lick', 'line', 'solo')),
			name         TEXT NOT NULL,
			body         BLOB NOT NULL,
			version      INTEGER NOT NULL CHECK (version >= 1),
			chart_id     INTEGER REFERENCES documents (id),
			created_at   DATETIME NOT NULL,
			updated_at   DATETIME NOT NULL,
			deleted_at   DATETIME,
			practised_at DATETIME
		)`,
		`CREATE INDEX documents_by_kind ON documents (kind, deleted_at)`,
		`CREATE INDEX documents_by_chart ON documents (chart_id)`,
		`CREATE TABLE revisions (
			document_id INTEGER NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
			version     INTEGER NOT NULL,
			name        TEXT NOT NULL,
			body        BLOB NOT NULL,
			saved_at    DATETIME NOT NULL,
			PRIMARY KEY (document_id, version)
		)`,
		`INSERT INTO documents (id, kind, name, body, version, chart_id, created_at, updated_at, deleted_at, practised_at)
			SELECT id, kind, name, body, version, chart_id, created_at, updated_at, deleted_at, practised_at FROM documents_before ORDER BY id`,
		`INSERT INTO revisions (document_id, version, name, body, saved_at) SELECT document_id, version, name, body, saved_at FROM revisions_before`,
		`DROP TABLE documents_before`,
		`DROP TABLE revisions_before`,
	)},
	// A summary is what a list shows of a document, so that lists read no bodies. A body
	// that is changed without a new version was changed by someone else: its summary is
	// forgotten, and made anew from what is there.
	{ID: "0005-summaries", Migrate: statements(
		`ALTER TABLE documents ADD COLUMN summary BLOB`,
		`ALTER TABLE documents ADD COLUMN label TEXT NOT NULL DEFAULT ''`,
		`ALTER TABLE revisions ADD COLUMN label TEXT NOT NULL DEFAULT ''`,
		`CREATE TRIGGER documents_changed_outside AFTER UPDATE OF body ON documents
			WHEN NEW.version = OLD.version
			BEGIN UPDATE documents SET summary = NULL WHERE id = NEW.id; END`,
	)},
	// Which kinds there are is held by the program from here on, so that a new one needs no
	// new table. Both tables are made anew as in 0004.
	{ID: "0006-any-kind", Migrate: statements(
		`CREATE TABLE documents_before AS SELECT * FROM documents`,
		`CREATE TABLE revisions_before AS SELECT * FROM revisions`,
		`DROP TABLE revisions`,
		`DROP TABLE documents`,
		`CREATE TABLE documents (
			id           INTEGER PRIMARY KEY AUTOINCREMENT,
			kind         TEXT NOT NULL CHECK (kind <> ''),
			name         TEXT NOT NULL,
			body         BLOB NOT NULL,
			version      INTEGER NOT NULL CHECK (version >= 1),
			chart_id     INTEGER REFERENCES documents (id),
			created_at   DATETIME NOT NULL,
			updated_at   DATETIME NOT NULL,
			deleted_at   DATETIME,
			practised_at DATETIME,
			summary      BLOB,
			label        TEXT NOT NULL DEFAULT ''
		)`,
		`CREATE INDEX documents_by_kind ON documents (kind, deleted_at)`,
		`CREATE INDEX documents_by_chart ON documents (chart_id)`,
		`CREATE UNIQUE INDEX one_band_for_each_chart ON documents (chart_id) WHERE kind = 'band' AND deleted_at IS NULL`,
		`CREATE TABLE revisions (
			document_id INTEGER NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
			version     INTEGER NOT NULL,
			name        TEXT NOT NULL,
			body        BLOB NOT NULL,
			saved_at    DATETIME NOT NULL,
			label       TEXT NOT NULL DEFAULT '',
			PRIMARY KEY (document_id, version)
		)`,
		`INSERT INTO documents (id, kind, name, body, version, chart_id, created_at, updated_at, deleted_at, practised_at, summary, label)
			SELECT id, kind, name, body, version, chart_id, created_at, updated_at, deleted_at, practised_at, summary, label FROM documents_before ORDER BY id`,
		`INSERT INTO revisions (document_id, version, name, body, saved_at, label)
			SELECT document_id, version, name, body, saved_at, label FROM revisions_before`,
		`DROP TABLE documents_before`,
		`DROP TABLE revisions_before`,
		`CREATE TRIGGER documents_changed_outside AFTER UPDATE OF body ON documents
			WHEN NEW.version = OLD.version
			BEGIN UPDATE documents SET summary = NULL WHERE id = NEW.id; END`,
	)},
	// Cards are the memory of what was asked, with sums of their reviews so that no list reads all
	// of those; reviews and entries of the log are only ever added, and taken back by a mark.
	{ID: "0007-practice", Migrate: statements(
		`CREATE TABLE cards (
			id             TEXT PRIMARY KEY,
			kind           TEXT NOT NULL,
			due_at         DATETIME NOT NULL,
			last_review_at DATETIME NOT NULL,
			stability      REAL NOT NULL,
			difficulty     REAL NOT NULL,
			reps           INTEGER NOT NULL,
			lapses         INTEGER NOT NULL,
			state          INTEGER NOT NULL,
			interval_days  INTEGER NOT NULL,
			answers        INTEGER NOT NULL,
			right_answers  INTEGER NOT NULL
		)`,
		`CREATE TABLE reviews (
			id             INTEGER PRIMARY KEY AUTOINCREMENT,
			card_id        TEXT NOT NULL REFERENCES cards (id),
			kind           TEXT NOT NULL,
			at             DATETIME NOT NULL,
			offset_minutes INTEGER NOT NULL,
			grade          INTEGER NOT NULL CHECK (grade BETWEEN 1 AND 4),
			got            INTEGER NOT NULL,
			of_parts       INTEGER NOT NULL,
			hints          INTEGER NOT NULL,
			took_ms        INTEGER NOT NULL,
			before         BLOB,
			taken_back_at  DATETIME
		)`,
		`CREATE INDEX reviews_by_card ON reviews (card_id, id)`,
		`CREATE INDEX reviews_by_kind ON reviews (kind, id)`,
		`CREATE INDEX first_reviews_by_time ON reviews (at) WHERE before IS NULL`,
		// How often cards and the log were written, so that what was read of them can be remembered.
		`CREATE TABLE changes (
			name  TEXT PRIMARY KEY,
			count INTEGER NOT NULL
		)`,
		`CREATE TABLE log_entries (
			id             INTEGER PRIMARY KEY AUTOINCREMENT,
			uid            TEXT NOT NULL UNIQUE,
			began_at       DATETIME NOT NULL,
			offset_minutes INTEGER NOT NULL,
			seconds        INTEGER NOT NULL,
			kind           TEXT NOT NULL,
			item           TEXT NOT NULL,
			document_id    INTEGER,
			tonic          TEXT NOT NULL,
			position       TEXT NOT NULL,
			tempo          INTEGER NOT NULL,
			goal           INTEGER NOT NULL,
			got            INTEGER NOT NULL,
			of_cards       INTEGER NOT NULL,
			went           TEXT NOT NULL,
			note           TEXT NOT NULL,
			written_at     DATETIME NOT NULL,
			replaced_by    INTEGER REFERENCES log_entries (id),
			removed_at     DATETIME
		)`,
		`CREATE INDEX log_entries_by_time ON log_entries (began_at, offset_minutes, seconds, kind, item, tempo, goal, went)
			WHERE replaced_by IS NULL AND removed_at IS NULL`,
		`CREATE INDEX log_entries_by_item ON log_entries (kind, item, began_at, offset_minutes, tempo, goal, went)
			WHERE replaced_by IS NULL AND removed_at IS NULL`,
	)},
	// A uid names a document wherever it goes, so that what is read from a bundle twice is kept once.
	{ID: "0008-uids", Migrate: statements(
		`ALTER TABLE documents ADD COLUMN uid TEXT NOT NULL DEFAULT ''`,
		`UPDATE documents SET uid = lower(hex(randomblob(16)))`,
		`CREATE UNIQUE INDEX documents_by_uid ON documents (uid) WHERE uid <> ''`,
	)},
	// Settings have versions like everything that is kept.
	{ID: "0009-setting-revisions", Migrate: statements(
		`CREATE TABLE setting_revisions (
			name     TEXT NOT NULL,
			version  INTEGER NOT NULL,
			body     BLOB NOT NULL,
			saved_at DATETIME NOT NULL,
			PRIMARY KEY (name, version)
		)`,
	)},
	// A uid names an answer, so that one that is sent twice counts once. Those from before have none.
	{ID: "0010-answer-uids", Migrate: statements(
		`ALTER TABLE reviews ADD COLUMN uid TEXT NOT NULL DEFAULT ''`,
		`CREATE UNIQUE INDEX reviews_by_uid ON reviews (uid) WHERE uid <> ''`,
	)},
	// How often the documents of a kind were written, whoever writes them, so that what was read of them can be
	// remembered.
	{ID: "0011-document-changes", Migrate: statements(
		`CREATE TRIGGER documents_inserted AFTER INSERT ON documents
			BEGIN INSERT INTO changes (name, count) VALUES ('documents: ' || NEW.kind, 1) ON CONFLICT (name) DO UPDATE SET count = count + 1; END`,
		`CREATE TRIGGER documents_updated AFTER UPDATE OF body, version, name, deleted_at, chart_id ON documents
			BEGIN INSERT INTO changes (name, count) VALUES ('documents: ' || NEW.kind, 1) ON CONFLICT (name) DO UPDATE SET count = count + 1; END`,
		`CREATE TRIGGER documents_removed AFTER DELETE ON documents
			BEGIN INSERT INTO changes (name, count) VALUES ('documents: ' || OLD.kind, 1) ON CONFLICT (name) DO UPDATE SET count = count + 1; END`,
	)},
}

func init() {
	migrations = append(migrations, &gormigrate.Migration{ID: "0012-generations", Migrate: func(tx *gorm.DB) error {
		all := []string{
			// One row, which every write writes: see log.go.
			`CREATE TABLE generation (
				only    INTEGER PRIMARY KEY CHECK (only = 1),
				now     TEXT NOT NULL,
				before  TEXT NOT NULL,
				pending INTEGER NOT NULL,
				writes  INTEGER NOT NULL
			)`,
			`INSERT INTO generation (only, now, before, pending, writes) VALUES (1, lower(hex(randomblob(16))), lower(hex(randomblob(16))), 0, 0)`,
		}
		for _, table := range []string{"documents", "revisions", "settings", "setting_revisions", "cards", "reviews", "log_entries"} {
			for _, event := range []string{"INSERT", "UPDATE", "DELETE"} {
				all = append(all, fmt.Sprintf(`CREATE TRIGGER %s_%s_generation AFTER %s ON %s
					BEGIN UPDATE generation SET writes = writes + 1, pending = 0,
						before = CASE pending WHEN 0 THEN before ELSE now END, now = CASE pending WHEN 0 THEN now ELSE lower(hex(randomblob(16))) END; END`,
					table, strings.ToLower(event), event, table))
			}
		}
		return statements(all...)(tx)
	}})
}

func statements(all ...string) gormigrate.MigrateFunc {
	return func(tx *gorm.DB) error {
		for _, statement := range all {
			if err := tx.Exec(statement).Error; err != nil {
				return err
			}
		}
		return nil
	}
}

// ErrNewer says that a data file was written by a later version of the program.
var ErrNewer = errors.New("the data file was written by a later version of Undaris")

// ErrOtherProgram says that a file is a database of another program.
var ErrOtherProgram = errors.New("it is a database of another program, and stays as it is: name another file with --data")

func migrate(db *gorm.DB) error {
	if !db.Migrator().HasTable("migrations") {
		tables := int64(0)
		if err := db.Raw("SELECT COUNT(*) FROM sqlite_schema WHERE type = 'table'").Scan(&tables).Error; err != nil {
			return err
		}
		if tables > 0 {
			return ErrOtherProgram
		}
	}
	options := *gormigrate.DefaultOptions
	options.UseTransaction = true
	options.ValidateUnknownMigrations = true // a file from a newer version is refused, not misread
	err := gormigrate.New(db, &options, migrations).Migrate()
	if errors.Is(err, gormigrate.ErrUnknownPastMigration) {
		return ErrNewer
	}
	return err
}

// pending lists the migrations that a data file has not been through; all of them for one without any.
func pending(db *gorm.DB) ([]string, error) {
	done := []string{}
	if db.Migrator().HasTable("migrations") {
		if err := db.Raw("SELECT id FROM migrations").Scan(&done).Error; err != nil {
			return nil, err
		}
	}
	left := []string{}
	for _, m := range migrations {
		if !slices.Contains(done, m.ID) {
			left = append(left, m.ID)
		}
	}
	return left, nil
}
