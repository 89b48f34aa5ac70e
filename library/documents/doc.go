// Package documents keeps documents: it creates, reads, lists, replaces, duplicates, deletes and
// restores them, with their revisions, and holds what belongs together: a solo follows its
// tune. Between it and the store a body travels in an envelope that names its kind and the
// version of its schema; a body of an earlier schema is brought up to date as it is read, by
// the functions in migrations.go. It knows the documents (format/document) and the store; it
// knows nothing of requests and answers.
//
// Errors: store.ErrNotFound, store.ErrExists and *store.StaleError come from the store;
// *DamagedError says that a body cannot be read, *InvalidError that one may not be kept.
package documents
