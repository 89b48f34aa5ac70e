package main

import (
	"bytes"
	"io"
	"log/slog"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/access"
)

func TestWhoReachesTheServer(t *testing.T) {
	log := slog.New(slog.DiscardHandler)
	data := filepath.Join(t.TempDir(), "own.db")
	alone, err := networkOf(settings{data: data, addr: "127.0.0.1:8380", loopback: true}, "8380", io.Discard, log)
	require.NoError(t, err)
	assert.Equal(t, network{}, alone)

	out := bytes.Buffer{}
	house := settings{data: data, addr: "192.168.7.9:8380", tls: true}
	n, err := networkOf(house, "8380", &out, log)
	require.NoError(t, err)
	assert.Equal(t, []string{"https://192.168.7.9:8380"}, n.addresses)
	assert.NotNil(t, n.tls)
	made := strings.TrimPrefix(strings.SplitN(out.String(), "\n", 2)[0], "The passphrase is ")
	_, err = n.access.Enter(made, "x", "")
	require.NoError(t, err, out.String())
	out.Reset()
	n, err = networkOf(house, "8380", &out, log)
	require.NoError(t, err)
	assert.Empty(t, out.String(), "it is shown once")
	require.NoError(t, showNetwork(n, &out))
	assert.Contains(t, out.String(), "In the house it is at https://192.168.7.9:8380\n")
	assert.Contains(t, out.String(), "https://192.168.7.9:8380/trust")
	assert.Greater(t, strings.Count(out.String(), "█"), 100, "a QR code")

	house.passphrase = "short"
	_, err = networkOf(house, "8380", io.Discard, log)
	assert.ErrorIs(t, err, access.ErrShort)
	house.passphrase = "slow river"
	n, err = networkOf(house, "8380", io.Discard, log)
	require.NoError(t, err)
	_, err = n.access.Enter("slow river", "x", "")
	assert.NoError(t, err)
	_, err = networkOf(settings{data: data, certificate: "nowhere.crt", key: "nowhere.key"}, "8380", io.Discard, log)
	assert.ErrorContains(t, err, "cannot be used")
}

func TestACodeInTheTerminal(t *testing.T) {
	assert.Equal(t, strings.Join([]string{"██████", "██ ▀██", "██████"}, "\n")+"\n", qrText([][]bool{{true, false}, {true, true}}))
}
