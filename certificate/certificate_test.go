package certificate

import (
	"crypto/tls"
	"crypto/x509"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var start = time.Date(2026, 3, 1, 12, 0, 0, 0, time.UTC)

func leafOf(t *testing.T, own Own) *x509.Certificate {
	t.Helper()
	leaf, err := x509.ParseCertificate(own.Server.Certificate[0])
	require.NoError(t, err)
	return leaf
}

func TestACertificateOfOnesOwn(t *testing.T) {
	folder := t.TempDir()
	hosts := []string{"localhost", "pebble", "pebble.local", "192.168.7.9", "203.0.113.5"}
	own, err := InFolder(folder, hosts, start)
	require.NoError(t, err)
	authority, err := x509.ParseCertificate(own.Authority)
	require.NoError(t, err)
	assert.True(t, authority.IsCA)
	trusted := x509.NewCertPool()
	trusted.AddCert(authority)
	leaf := leafOf(t, own)
	for _, host := range hosts[:4] {
		_, err = leaf.Verify(x509.VerifyOptions{Roots: trusted, DNSName: host, CurrentTime: start, KeyUsages: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}})
		assert.NoError(t, err, host)
	}
	assert.Error(t, leaf.VerifyHostname("203.0.113.5"), "a public address is left out")
	assert.LessOrEqual(t, leaf.NotAfter.Sub(leaf.NotBefore), 825*24*time.Hour)
	files, err := filepath.Glob(filepath.Join(folder, "*"))
	require.NoError(t, err)
	require.Len(t, files, 4)
	for _, file := range files {
		info, err := os.Stat(file)
		require.NoError(t, err)
		assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), file)
	}

	again, err := InFolder(folder, hosts, start.Add(24*time.Hour))
	require.NoError(t, err)
	assert.Equal(t, own.Server.Certificate, again.Server.Certificate, "it is kept")
	moved, err := InFolder(folder, append(hosts, "10.0.0.7"), start)
	require.NoError(t, err)
	assert.NotEqual(t, own.Server.Certificate, moved.Server.Certificate, "a new address needs a new one")
	assert.Equal(t, own.Authority, moved.Authority, "by the authority that is trusted already")
	late, err := InFolder(folder, hosts, start.Add(certificateLasts-24*time.Hour))
	require.NoError(t, err)
	assert.True(t, late.Expires.After(moved.Expires), "it is renewed before it ends")
	assert.Equal(t, own.Authority, late.Authority)
	renamed, err := InFolder(folder, []string{"another-name"}, start)
	require.NoError(t, err)
	assert.NotEqual(t, own.Authority, renamed.Authority, "the authority does not vouch for another name")
}

// A key that is stolen vouches for nothing outside the house.
func TestTheAuthorityVouchesForTheHouseAlone(t *testing.T) {
	authority, err := newAuthority([]string{"pebble"}, start)
	require.NoError(t, err)
	trusted := x509.NewCertPool()
	trusted.AddCert(authority.certificate)
	for host, ok := range map[string]bool{"pebble": true, "a.local": true, "192.168.1.1": true, "bank.example": false, "8.8.8.8": false} {
		forged, err := newServer(authority, []string{host}, start)
		require.NoError(t, err)
		_, err = forged.certificate.Verify(x509.VerifyOptions{Roots: trusted, DNSName: host, CurrentTime: start})
		assert.Equal(t, ok, err == nil, "%s: %v", host, err)
	}
}

func TestADamagedCertificateIsMadeAnew(t *testing.T) {
	folder := t.TempDir()
	_, err := InFolder(folder, []string{"pebble"}, start)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(folder, "server.key"), []byte("nothing"), 0o600))
	own, err := InFolder(folder, []string{"pebble"}, start)
	require.NoError(t, err)
	require.NoError(t, leafOf(t, own).VerifyHostname("pebble"))
}

// A client that trusts the authority reaches a server with the certificate.
func TestTheServerIsReached(t *testing.T) {
	own, err := InFolder(t.TempDir(), HostsOf(), time.Now())
	require.NoError(t, err)
	server := httptest.NewUnstartedServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(http.StatusNoContent) }))
	server.TLS = &tls.Config{Certificates: []tls.Certificate{own.Server}, MinVersion: tls.VersionTLS12}
	server.StartTLS()
	defer server.Close()
	authority, err := x509.ParseCertificate(own.Authority)
	require.NoError(t, err)
	trusted := x509.NewCertPool()
	trusted.AddCert(authority)
	client := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: trusted, MinVersion: tls.VersionTLS12}}}
	answer, err := client.Get(server.URL)
	require.NoError(t, err)
	require.NoError(t, answer.Body.Close())
	assert.Equal(t, http.StatusNoContent, answer.StatusCode)
}
