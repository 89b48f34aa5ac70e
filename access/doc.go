// Package access lets players in who know the passphrase, where Undaris can be reached from other machines. The
// passphrase is kept as an argon2id hash, sessions as hashes of their tokens, in one file beside the data file that no
// bundle and no backup has. Guesses are slowed down, each address by itself and all together.
package access
