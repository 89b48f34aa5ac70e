package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"net/url"
	"os"
	"slices"
	"strings"
	"time"
)

// RescuedTable is what could be read of one table of a damaged data file.
type RescuedTable struct {
	Name string
	// Rows were read and written to the new file. Unread is about how many could not be: where a part of the file is
	// lost, nobody knows which numbers were in use in it.
	Rows, Unread int
}

// rescuedTables are the tables with what players keep, in an order in which what is referred to comes first.
var rescuedTables = keptTables

// beyond is how many rows are looked for after the last one that was found, where it is not known how many there were.
const beyond = 1000

// Rescue reads what can be read of a damaged data file, row by row, into a new file, and says how much that was. A
// document whose own row is lost comes back from the latest of its revisions; what belonged to a lost document stands
// alone. The damaged file is only read.
func Rescue(ctx context.Context, from, to string) ([]RescuedTable, error) {
	if _, err := os.Stat(to); err == nil {
		return nil, fmt.Errorf("%s is there already: name a new file", to)
	}
	target, err := Open(to)
	if err != nil {
		return nil, err
	}
	defer func() { _ = target.Close() }()
	into, err := target.db.DB()
	if err != nil {
		return nil, err
	}
	// One connection, so that the pragma holds for what follows: rows may come before what they refer to.
	into.SetMaxOpenConns(1)
	if _, err := into.ExecContext(ctx, "PRAGMA foreign_keys = 0"); err != nil {
		return nil, asFileError(err)
	}
	if _, err := into.ExecContext(ctx, "BEGIN"); err != nil {
		return nil, asFileError(err)
	}
	damaged, err := sql.Open("sqlite", fileURL(from, url.Values{"mode": {"ro"}, "_pragma": {"busy_timeout(5000)"}}))
	if err != nil {
		return nil, asFileError(err)
	}
	defer func() { _ = damaged.Close() }()
	all := []RescuedTable{}
	for _, name := range rescuedTables {
		table, err := rescueTable(ctx, damaged, into, name)
		if err != nil {
			return all, err
		}
		all = append(all, table)
	}
	if err := rescueStray(ctx, from, into, all); err != nil {
		return all, err
	}
	for _, mend := range []string{
		`UPDATE documents SET uid = lower(hex(randomblob(16))) WHERE uid = ''`,
		`INSERT INTO documents (id, uid, kind, name, body, version, created_at, updated_at)
			SELECT r.document_id, lower(hex(randomblob(16))), json_extract(CAST(r.body AS TEXT), '$.kind'), r.name, r.body, r.version + 1, r.saved_at, r.saved_at FROM revisions r
			WHERE r.document_id NOT IN (SELECT id FROM documents) AND json_valid(CAST(r.body AS TEXT)) AND json_extract(CAST(r.body AS TEXT), '$.kind') <> ''
			AND r.version = (SELECT MAX(version) FROM revisions l WHERE l.document_id = r.document_id)`,
		`DELETE FROM revisions WHERE document_id NOT IN (SELECT id FROM documents)`,
		`UPDATE documents SET chart_id = NULL WHERE chart_id NOT IN (SELECT id FROM documents)`,
		`DELETE FROM reviews WHERE card_id NOT IN (SELECT id FROM cards)`,
		`UPDATE log_entries SET replaced_by = NULL WHERE replaced_by NOT IN (SELECT id FROM log_entries)`,
	} {
		if _, err := into.ExecContext(ctx, mend); err != nil {
			return all, asFileError(err)
		}
	}
	if _, err := into.ExecContext(ctx, "COMMIT"); err != nil {
		return all, asFileError(err)
	}
	if _, err := into.ExecContext(ctx, "PRAGMA foreign_keys = 1"); err != nil {
		return all, asFileError(err)
	}
	return all, target.Checkpoint(ctx)
}

// rescueTable copies the rows of a table that can be read. A row that cannot be kept counts as unread.
func rescueTable(ctx context.Context, from, into *sql.DB, name string) (RescuedTable, error) {
	table := RescuedTable{Name: name}
	columns, err := columnsOf(ctx, into, name)
	if err != nil {
		return table, err
	}
	// An older file has fewer columns; one whose columns cannot be read is taken to have them all.
	if there, err := columnsOf(ctx, from, name); err == nil && len(there) > 0 {
		columns = slices.DeleteFunc(columns, func(c string) bool { return !slices.Contains(there, c) })
	}
	list := strings.Join(columns, ", ")
	keep := fmt.Sprintf("INSERT OR IGNORE INTO %s (%s) VALUES (?%s)", name, list, strings.Repeat(", ?", len(columns)-1))
	values, pointers := make([]any, len(columns)), make([]any, len(columns)+1)
	row := int64(0)
	pointers[0] = &row
	for n := range values {
		pointers[n+1] = &values[n]
	}
	keepRow := func() {
		mendTimes(columns, values)
		if result, err := into.ExecContext(ctx, keep, values...); err == nil {
			kept, _ := result.RowsAffected()
			table.Rows += int(kept)
			return
		}
		table.Unread++
	}
	// As long as it goes well all rows are read one after the other; from where it does not, one by one.
	last, whole := int64(0), false
	if rows, err := from.QueryContext(ctx, fmt.Sprintf("SELECT rowid, %s FROM %s NOT INDEXED ORDER BY rowid", list, name)); err == nil {
		for rows.Next() {
			if err := rows.Scan(pointers...); err != nil {
				break
			}
			last = row
			keepRow()
		}
		whole = rows.Err() == nil
		_ = rows.Close()
	}
	if whole || ctx.Err() != nil {
		return table, ctx.Err()
	}
	most := last + beyond
	from.SetMaxOpenConns(1)
	known := int64(0)
	if err := from.QueryRowContext(ctx, "SELECT seq FROM sqlite_sequence WHERE name = ?", name).Scan(&known); err == nil {
		most = max(known, last)
	}
	one, err := from.PrepareContext(ctx, fmt.Sprintf("SELECT rowid, %s FROM %s NOT INDEXED WHERE rowid = ?", list, name))
	if err != nil {
		// Where the table lies is not known: its rows are looked for page by page.
		table.Unread += int(most - last)
		return table, ctx.Err()
	}
	defer func() { _ = one.Close() }()
	for next := last + 1; next <= most; next++ {
		if ctx.Err() != nil {
			return table, ctx.Err()
		}
		err := one.QueryRowContext(ctx, next).Scan(pointers...)
		switch {
		case err == nil:
			keepRow()
			if known == 0 {
				most = next + beyond
			}
		case !errors.Is(err, sql.ErrNoRows):
			table.Unread++
		}
	}
	return table, nil
}

// mendTimes puts a time that can be read in the place of one that cannot: 1970 where there must be one.
func mendTimes(columns []string, values []any) {
	for n, column := range columns[:len(values)] {
		text, isText := values[n].(string)
		if !strings.HasSuffix(column, "_at") || !isText {
			continue
		}
		switch at, err := time.Parse("2006-01-02 15:04:05.999999999-07:00", text); {
		case err == nil:
			values[n] = at.UTC()
		case column == "created_at" || column == "updated_at" || column == "saved_at" || column == "began_at" || column == "written_at":
			values[n] = time.Unix(0, 0).UTC()
		default:
			values[n] = nil
		}
	}
}

// columnsOf names the columns of a table.
func columnsOf(ctx context.Context, db interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
}, table string) ([]string, error) {
	rows, err := db.QueryContext(ctx, "SELECT name FROM pragma_table_info(?)", table)
	if err != nil {
		return nil, asFileError(err)
	}
	defer func() { _ = rows.Close() }()
	names := []string{}
	for rows.Next() {
		name := ""
		if err := rows.Scan(&name); err != nil {
			return nil, asFileError(err)
		}
		names = append(names, name)
	}
	return names, asFileError(rows.Err())
}

// strayTable says how the rows of a table are known where nothing leads to them: by how many columns they have, and what
// the first of them are. Rows of earlier versions of the program have fewer columns, which come first.
type strayTable struct {
	least int
	known func(columns []any) bool
	// key names the row by what it is unique for, newer says which of two of one key was written later, by a column.
	key   func(row strayRow) string
	newer int
}

func isText(value any) bool  { _, ok := value.(string); return ok }
func isBlob(value any) bool  { _, ok := value.([]byte); return ok }
func isWhole(value any) bool { _, ok := value.(int64); return ok }

var strayTables = map[string]strayTable{
	"documents": {
		least: 9, newer: 4, key: func(row strayRow) string { return fmt.Sprint(row.rowid) },
		known: func(c []any) bool {
			kind, _ := c[1].(string)
			return c[0] == nil && slices.Contains(kinds, Kind(kind)) && isText(c[2]) && isBlob(c[3]) && isWhole(c[4])
		},
	},
	"revisions": {
		least: 5, newer: 1, key: func(row strayRow) string { return fmt.Sprint(row.columns[0], " ", row.columns[1]) },
		known: func(c []any) bool {
			return len(c) <= 6 && isWhole(c[0]) && isWhole(c[1]) && isText(c[2]) && isBlob(c[3]) && isText(c[4])
		},
	},
	"settings": {
		least: 4, newer: 2, key: func(row strayRow) string { return fmt.Sprint(row.columns[0]) },
		known: func(c []any) bool {
			return len(c) == 4 && isText(c[0]) && isBlob(c[1]) && isWhole(c[2]) && isText(c[3])
		},
	},
}

// rescueStray looks through the pages of the file for documents, versions and settings to which nothing leads any more,
// and keeps those that were not found on the way. Of several of one document the one that was saved last is kept. What
// was deleted for good long ago may be among them: too much is better than too little here.
func rescueStray(ctx context.Context, from string, into *sql.DB, tables []RescuedTable) error {
	found := map[string]map[string]strayRow{}
	err := strayRows(from, func(row strayRow) {
		for name, table := range strayTables {
			if len(row.columns) < table.least || !table.known(row.columns) {
				continue
			}
			if found[name] == nil {
				found[name] = map[string]strayRow{}
			}
			key := table.key(row)
			before, known := found[name][key]
			if !known || row.columns[table.newer].(int64) > before.columns[table.newer].(int64) {
				found[name][key] = row
			}
		}
	})
	if err != nil {
		return err
	}
	for n, t := range tables {
		columns, err := columnsOf(ctx, into, t.Name)
		if err != nil {
			return err
		}
		for _, row := range found[t.Name] {
			values := slices.Clone(row.columns[:min(len(row.columns), len(columns))])
			if t.Name == "documents" {
				values[0] = row.rowid
			}
			mendTimes(columns, values)
			keep := fmt.Sprintf("INSERT OR IGNORE INTO %s (%s) VALUES (?%s)", t.Name, strings.Join(columns[:len(values)], ", "), strings.Repeat(", ?", len(values)-1))
			result, err := into.ExecContext(ctx, keep, values...)
			if err != nil {
				continue
			}
			kept, _ := result.RowsAffected()
			tables[n].Rows += int(kept)
			tables[n].Unread = max(0, tables[n].Unread-int(kept))
		}
	}
	return nil
}
