package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"strconv"
	"syscall"
	"time"

	"undaris/api"
	"undaris/demo"
	"undaris/library/backup"
	"undaris/library/documents"
	"undaris/store"
	"undaris/web"
)

// graceful is how long requests in flight have to end when the server stops.
const graceful = 800 * time.Millisecond

// serve runs the server until it is interrupted.
func serve(s settings, stdout, stderr io.Writer) error {
	level := slog.LevelInfo
	if s.verbose {
		level = slog.LevelDebug
	}
	log := slog.New(slog.NewTextHandler(stderr, &slog.HandlerOptions{Level: level}))

	backups := backupsOf(s.data, s.backups)
	// The lock and the port first: a second start must not touch the data of the first.
	lock, err := store.TakeLock(s.data)
	var held *store.HeldError
	if errors.As(err, &held) && held.Address != "" {
		fmt.Fprintf(stdout, "Undaris is already running with this data, at %s\n", held.Address)
		if s.open {
			return openBrowser(held.Address)
		}
		return nil
	}
	if err != nil {
		return inPlainWords(err, backups)
	}
	defer func() {
		if err := lock.Release(); err != nil {
			log.Error("letting go of the data file", "error", err)
		}
	}()
	listener, err := net.Listen("tcp", s.addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return fmt.Errorf("%s is already in use, perhaps by another undaris; give another port with --addr", s.addr)
	}
	if err != nil {
		return fmt.Errorf("listening on %s: %w", s.addr, err)
	}
	defer func() { _ = listener.Close() }()

	if _, err := os.Stat(s.data); errors.Is(err, os.ErrNotExist) {
		if newest, found := backups.NewestGood(context.Background()); found {
			log.Warn("there is no data file, and a new one is begun; but there are backups, which undaris restore puts in its place", "newest", newest.Name)
		}
	}
	data, err := backup.OpenKept(context.Background(), backups, log)
	if err != nil {
		return inPlainWords(err, backups)
	}
	defer func() {
		// So that a copy of the file has all that it holds.
		if err := data.Checkpoint(context.Background()); err != nil {
			log.Error("bringing the data file up to date", "error", err)
		}
		if err := data.Close(); err != nil {
			log.Error("closing the data file", "error", err)
		}
	}()
	if err := fill(context.Background(), documents.New(data, log), backups.Sounds, s.demo); err != nil {
		return inPlainWords(fmt.Errorf("filling the new data file %s: %w", s.data, err), backups)
	}
	_, port, err := net.SplitHostPort(listener.Addr().String())
	if err != nil {
		return err
	}
	reached, err := networkOf(s, port, stdout, log)
	if err != nil {
		return err
	}
	scheme := "http://"
	if reached.tls != nil {
		listener, scheme = tls.NewListener(listener, reached.tls), "https://"
	}
	computing, stopComputing := context.WithCancel(context.Background())
	defer stopComputing()
	server := &http.Server{
		BaseContext: func(net.Listener) context.Context { return computing },
		Handler: api.New(api.Config{
			Store: data, Sounds: backups.Sounds, Backups: backups, Web: web.Files(), Version: version, Demo: s.demo,
			Access: reached.access, TLS: reached.tls != nil, Authority: reached.authority, Addresses: reached.addresses, Loopback: s.loopback, Log: log,
		}),
		ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout:       30 * time.Second,
		// An export of many takes may be long: its handler gives itself more time as it goes.
		WriteTimeout: time.Minute,
		IdleTimeout:  2 * time.Minute,
	}
	// It ends when its window is closed (SIGHUP), too. Whoever is impatient and asks again is not heard: it is over within
	// a second, and ended in the middle it could not bring what was written into the data file.
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	asked := make(chan os.Signal, 4)
	signal.Notify(asked, syscall.SIGINT, syscall.SIGTERM, syscall.SIGHUP)
	go func() {
		for range asked {
			stop()
		}
	}()
	ended := make(chan error, 1)
	go func() { ended <- server.Serve(listener) }()
	address := scheme + shownHost(listener.Addr())
	if err := lock.ServesAt(address); err != nil {
		log.Warn("a second start will not find this one", "error", err)
	}
	kept := make(chan struct{})
	go func() {
		defer close(kept)
		backup.Upkeep{Library: documents.New(data, log), Backups: backups, Log: log}.Run(ctx)
	}()
	defer func() { stop(); <-kept }()
	fmt.Fprintf(stdout, "Undaris is at %s\n", address)
	if err := showNetwork(reached, stdout); err != nil {
		log.Warn("the address could not be shown", "error", err)
	}
	if s.open {
		if err := openBrowser(address); err != nil {
			log.Warn("the browser could not be opened", "error", err)
		}
	}
	log.Info("serving", "addr", listener.Addr().String(), "data", s.data, "demo", s.demo, "version", version)

	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	log.Info("stopping")
	last, cancel := context.WithTimeout(context.Background(), graceful)
	defer cancel()
	// What is short is answered; what still computes after a while is told that nobody waits, and then cut off. Saves
	// that were begun are made all the same.
	late := time.AfterFunc(graceful/2, stopComputing)
	defer late.Stop()
	if err := server.Shutdown(last); !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	log.Warn("requests were cut off")
	return server.Close()
}

// shownHost is where the player of this machine finds the server: one that listens to every address is at localhost.
func shownHost(at net.Addr) string {
	if tcp, ok := at.(*net.TCPAddr); ok && tcp.IP.IsUnspecified() {
		return net.JoinHostPort("localhost", strconv.Itoa(tcp.Port))
	}
	return at.String()
}

// fill puts into a data file that has never held anything the licks that every
// library begins with and, for the demo, the tunes and a finished solo; all of it or nothing.
func fill(ctx context.Context, data *documents.Library, sounds *store.Sounds, withTunes bool) error {
	isNew, err := data.IsNew(ctx)
	if err != nil || !isNew {
		return err
	}
	return data.Together(ctx, func(data *documents.Library) error {
		if err := demo.Fill(ctx, data, withTunes); err != nil || !withTunes {
			return err
		}
		if err := demo.FillTakes(ctx, data, sounds, time.Now()); err != nil {
			return err
		}
		return demo.FillPractice(ctx, data, time.Now())
	})
}
