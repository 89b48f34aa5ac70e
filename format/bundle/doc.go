// Package bundle writes and reads bundles: a .zip of files with a manifest that lists each with its size and its
// SHA-256. What the files mean is the business of whoever wrote them. A bundle is read only as far as its manifest
// agrees with it: a file that is not listed is not read, one that is not what it was is refused.
package bundle
