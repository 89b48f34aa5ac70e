package main

import (
	"crypto/tls"
	"fmt"
	"io"
	"log/slog"
	"net"
	"strings"
	"time"

	"undaris/access"
	"undaris/api"
	"undaris/certificate"
)

// network is how other machines reach the server.
type network struct {
	access    *access.Access
	tls       *tls.Config
	authority []byte
	addresses []string
}

// networkOf prepares what the settings ask for; on this machine alone without TLS that is nothing. A passphrase that is
// made up is shown.
func networkOf(s settings, port string, stdout io.Writer, log *slog.Logger) (network, error) {
	n := network{}
	switch {
	case s.certificate != "":
		given, err := tls.LoadX509KeyPair(s.certificate, s.key)
		if err != nil {
			return n, fmt.Errorf("the certificate %s and the key %s cannot be used: %w", s.certificate, s.key, err)
		}
		n.tls = &tls.Config{Certificates: []tls.Certificate{given}, MinVersion: tls.VersionTLS12}
	case s.tls:
		own, err := certificate.InFolder(s.data+".tls", certificate.HostsOf(), time.Now())
		if err != nil {
			return n, err
		}
		n.tls = &tls.Config{Certificates: []tls.Certificate{own.Server}, MinVersion: tls.VersionTLS12}
		n.authority = own.Authority
	}
	if s.loopback {
		return n, nil
	}
	if n.tls == nil {
		log.Warn("other machines are let in without TLS: whoever is in the network can overhear the passphrase, and the microphone does not work there")
	}
	n.addresses = addressesOf(s.addr, port, n.tls != nil)
	var err error
	if n.access, err = access.Open(access.FileBeside(s.data), time.Now); err != nil {
		return n, err
	}
	switch {
	case s.passphrase != "":
		if err := n.access.SetPassphrase(s.passphrase); err != nil {
			return n, fmt.Errorf("%s: %w", passphraseVariable, err)
		}
	case s.newPassphrase || !n.access.HasPassphrase():
		made, err := access.MadeUp()
		if err != nil {
			return n, err
		}
		if err := n.access.SetPassphrase(made); err != nil {
			return n, err
		}
		fmt.Fprintf(stdout, "The passphrase is %s\nIt is shown this once; --new-passphrase makes another.\n", made)
	}
	return n, nil
}

// addressesOf are where devices in the house reach a server, the likeliest first: short addresses before long
// ones, and names last, since not every network knows those.
func addressesOf(addr, port string, secure bool) []string {
	scheme := "http://"
	if secure {
		scheme = "https://"
	}
	host, _, err := net.SplitHostPort(addr)
	if ip := net.ParseIP(host); err == nil && host != "" && (ip == nil || !ip.IsUnspecified()) {
		return []string{scheme + net.JoinHostPort(host, port)}
	}
	addresses, longer, names := []string{}, []string{}, []string{}
	for _, one := range certificate.HostsOf() {
		switch ip := net.ParseIP(one); {
		case one == "localhost" || ip != nil && ip.IsLoopback():
		case ip != nil && ip.To4() == nil:
			longer = append(longer, scheme+net.JoinHostPort(one, port))
		case ip != nil:
			addresses = append(addresses, scheme+net.JoinHostPort(one, port))
		case strings.HasSuffix(one, ".local"):
			names = append(names, scheme+net.JoinHostPort(one, port))
		}
	}
	return append(append(addresses, longer...), names...)
}

// showNetwork prints where a device in the house goes, with a QR code of the first address.
func showNetwork(n network, stdout io.Writer) error {
	if len(n.addresses) == 0 {
		return nil
	}
	fmt.Fprintf(stdout, "In the house it is at %s\n", strings.Join(n.addresses, " or "))
	dark, err := api.QRModules(n.addresses[0])
	if err != nil {
		return err
	}
	fmt.Fprintln(stdout, qrText(dark))
	if n.authority != nil {
		fmt.Fprintf(stdout, "A device that warns of the certificate finds at %s/trust how to trust it.\n", n.addresses[0])
	}
	return nil
}

// qrText draws modules in a terminal, two rows a line, light on dark as terminals mostly are: light modules are drawn.
func qrText(dark [][]bool) string {
	const margin = 2
	size := len(dark) + 2*margin
	light := func(x, y int) bool {
		x, y = x-margin, y-margin
		return x < 0 || y < 0 || y >= len(dark) || x >= len(dark) || !dark[y][x]
	}
	out := strings.Builder{}
	for y := 0; y < size; y += 2 {
		for x := range size {
			switch upper, lower := light(x, y), y+1 < size && light(x, y+1); {
			case upper && lower:
				out.WriteRune('█')
			case upper:
				out.WriteRune('▀')
			case lower:
				out.WriteRune('▄')
			default:
				out.WriteRune(' ')
			}
		}
		out.WriteRune('\n')
	}
	return out.String()
}
