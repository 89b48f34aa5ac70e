// Package certificate makes the certificates that a tablet in the house needs to reach this machine over TLS: an
// authority of its own, which the player lets the tablet trust once, and a certificate by it for the machine's names and
// addresses. The authority can vouch for names of the house alone: private addresses, .local names and the machine's
// own name (RFC 5280, 4.2.1.10), so that a stolen key is of no use against any other site.
package certificate
