package certificate

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"errors"
	"fmt"
	"math/big"
	"net"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"undaris/wholefile"
)

// How long certificates last, and how long before their end they are renewed: what phones accept of a certificate by an
// authority that was added is 825 days.
const (
	authorityLasts   = 10 * 365 * 24 * time.Hour
	certificateLasts = 800 * 24 * time.Hour
	renewedBefore    = 30 * 24 * time.Hour
)

// Own is an authority and the certificate it has made for this machine.
type Own struct {
	Server tls.Certificate
	// Authority is the certificate of the authority, in DER, for a device that is to trust it.
	Authority []byte
	// Expires is when the certificate of the machine ends.
	Expires time.Time
}

// InFolder is the own certificate that is kept in a folder, for names and addresses; what is missing, ends soon or lacks
// one of them is made anew. Keys are readable by the player alone. Addresses that are not of a private network are left
// out: the authority does not vouch for them.
func InFolder(folder string, hosts []string, now time.Time) (Own, error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return Own{}, err
	}
	hosts = slices.DeleteFunc(slices.Clone(hosts), func(host string) bool {
		ip := net.ParseIP(host)
		return ip != nil && !ofTheHouse(ip)
	})
	authority, err := read(folder, "authority")
	if err != nil || now.After(authority.certificate.NotAfter.Add(-certificateLasts)) || !mayVouchFor(authority.certificate, hosts) {
		if authority, err = newAuthority(hosts, now); err != nil {
			return Own{}, err
		}
		if err := authority.write(folder, "authority"); err != nil {
			return Own{}, err
		}
	}
	server, err := read(folder, "server")
	if err != nil || !server.isFor(hosts, authority.certificate, now) {
		if server, err = newServer(authority, hosts, now); err != nil {
			return Own{}, err
		}
		if err := server.write(folder, "server"); err != nil {
			return Own{}, err
		}
	}
	return Own{
		Server:    tls.Certificate{Certificate: [][]byte{server.certificate.Raw, authority.certificate.Raw}, PrivateKey: server.key, Leaf: server.certificate},
		Authority: authority.certificate.Raw,
		Expires:   server.certificate.NotAfter,
	}, nil
}

// privateNetworks are those of RFC 1918, 4193 and 3927, and this machine alone.
var privateNetworks = func() []*net.IPNet {
	all := []*net.IPNet{}
	for _, written := range []string{"10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8", "fc00::/7", "fe80::/10", "::1/128"} {
		_, network, err := net.ParseCIDR(written)
		if err != nil {
			panic(err)
		}
		all = append(all, network)
	}
	return all
}()

func ofTheHouse(ip net.IP) bool {
	return slices.ContainsFunc(privateNetworks, func(n *net.IPNet) bool { return n.Contains(ip) })
}

// pair is a certificate and its key.
type pair struct {
	certificate *x509.Certificate
	key         *ecdsa.PrivateKey
}

func newAuthority(hosts []string, now time.Time) (pair, error) {
	domains := []string{"local", "localhost"}
	for _, host := range hosts {
		if net.ParseIP(host) == nil && !slices.Contains(domains, host) {
			domains = append(domains, host)
		}
	}
	template := &x509.Certificate{
		Subject:               pkix.Name{CommonName: "Undaris of this house, " + now.UTC().Format("2006-01-02")},
		NotBefore:             now.Add(-time.Hour),
		NotAfter:              now.Add(authorityLasts),
		IsCA:                  true,
		BasicConstraintsValid: true,
		MaxPathLenZero:        true,
		KeyUsage:              x509.KeyUsageCertSign | x509.KeyUsageCRLSign,

		PermittedDNSDomainsCritical: true,
		PermittedDNSDomains:         domains,
		PermittedIPRanges:           privateNetworks,
	}
	return signed(template, nil)
}

func newServer(authority pair, hosts []string, now time.Time) (pair, error) {
	template := &x509.Certificate{
		Subject:               pkix.Name{CommonName: "Undaris"},
		NotBefore:             now.Add(-time.Hour),
		NotAfter:              now.Add(certificateLasts),
		BasicConstraintsValid: true,
		KeyUsage:              x509.KeyUsageDigitalSignature,
		ExtKeyUsage:           []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
	}
	for _, host := range hosts {
		if ip := net.ParseIP(host); ip != nil {
			template.IPAddresses = append(template.IPAddresses, ip)
		} else {
			template.DNSNames = append(template.DNSNames, host)
		}
	}
	return signed(template, &authority)
}

// signed makes a key and a certificate for it, by an authority or, for nil, by itself.
func signed(template *x509.Certificate, by *pair) (pair, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return pair{}, err
	}
	if template.SerialNumber, err = rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 127)); err != nil {
		return pair{}, err
	}
	parent, signer := template, key
	if by != nil {
		parent, signer = by.certificate, by.key
	}
	raw, err := x509.CreateCertificate(rand.Reader, template, parent, &key.PublicKey, signer)
	if err != nil {
		return pair{}, err
	}
	made, err := x509.ParseCertificate(raw)
	return pair{made, key}, err
}

// isFor says whether the certificate is good for a while, by the authority, and for every one of the hosts.
func (p pair) isFor(hosts []string, authority *x509.Certificate, now time.Time) bool {
	if now.After(p.certificate.NotAfter.Add(-renewedBefore)) || p.certificate.CheckSignatureFrom(authority) != nil {
		return false
	}
	return !slices.ContainsFunc(hosts, func(host string) bool { return p.certificate.VerifyHostname(host) != nil })
}

// mayVouchFor says whether an authority's constraints let it vouch for the hosts.
func mayVouchFor(authority *x509.Certificate, hosts []string) bool {
	return !slices.ContainsFunc(hosts, func(host string) bool {
		return net.ParseIP(host) == nil && !slices.ContainsFunc(authority.PermittedDNSDomains, func(domain string) bool {
			return host == domain || strings.HasSuffix(host, "."+domain)
		})
	})
}

func read(folder, name string) (pair, error) {
	loaded, err := tls.LoadX509KeyPair(filepath.Join(folder, name+".crt"), filepath.Join(folder, name+".key"))
	if err != nil {
		return pair{}, err
	}
	key, ok := loaded.PrivateKey.(*ecdsa.PrivateKey)
	if !ok {
		return pair{}, errors.New("the key is of another kind")
	}
	certificate, err := x509.ParseCertificate(loaded.Certificate[0])
	return pair{certificate, key}, err
}

func (p pair) write(folder, name string) error {
	key, err := x509.MarshalPKCS8PrivateKey(p.key)
	if err != nil {
		return err
	}
	for file, block := range map[string]*pem.Block{
		name + ".key": {Type: "PRIVATE KEY", Bytes: key}, name + ".crt": {Type: "CERTIFICATE", Bytes: p.certificate.Raw},
	} {
		if err := wholefile.WriteBytes(filepath.Join(folder, file), pem.EncodeToMemory(block)); err != nil {
			return fmt.Errorf("keeping the certificate: %w", err)
		}
	}
	return nil
}

// HostsOf lists the names and addresses that this machine has in the house: its name, the same with .local, and the
// private addresses of its network cards; localhost too.
func HostsOf() []string {
	hosts := []string{"localhost", "127.0.0.1", "::1"}
	if name, err := os.Hostname(); err == nil && name != "" {
		name = strings.ToLower(name)
		short, _, _ := strings.Cut(name, ".")
		for _, one := range []string{name, short, short + ".local"} {
			if !slices.Contains(hosts, one) {
				hosts = append(hosts, one)
			}
		}
	}
	addresses, err := net.InterfaceAddrs()
	if err != nil {
		return hosts
	}
	for _, address := range addresses {
		if network, ok := address.(*net.IPNet); ok && !network.IP.IsLoopback() && !network.IP.IsLinkLocalUnicast() && ofTheHouse(network.IP) {
			hosts = append(hosts, network.IP.String())
		}
	}
	return hosts
}
