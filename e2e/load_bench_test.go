package e2e

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"net/http"
	"sort"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

var loadSeconds = flag.Int("load-seconds", 10, "how long the program is put under load")

// question is a request that is asked again and again.
type question struct {
	method, path string
	body         []byte
	plan         bool
}

// took is how long an answer took, or what was wrong with it.
type took struct {
	path  string
	plan  bool
	time  time.Duration
	wrong string
}

func (q question) ask(client *http.Client, base string) took {
	start := time.Now()
	request, err := http.NewRequest(q.method, base+q.path, bytes.NewReader(q.body))
	if err != nil {
		return took{wrong: err.Error()}
	}
	request.Header.Set("Content-Type", "application/json")
	answer, err := client.Do(request)
	if err != nil {
		return took{path: q.path, plan: q.plan, wrong: err.Error()}
	}
	defer func() { _ = answer.Body.Close() }()
	_, err = io.Copy(io.Discard, answer.Body)
	t := took{path: q.path, plan: q.plan, time: time.Since(start)}
	if err != nil || answer.StatusCode >= 300 {
		t.wrong = fmt.Sprintf("%s %s: %d %v", q.method, q.path, answer.StatusCode, err)
	}
	return t
}

// questions are a mix of what pages ask: reads, computations, and once in a while a plan.
func questions(b *testing.B, s *server) (short []question, plan question) {
	b.Helper()
	answer, err := http.Get(s.base + "/api/charts/1")
	require.NoError(b, err)
	defer func() { _ = answer.Body.Close() }()
	kept := struct{ Chart json.RawMessage }{}
	require.NoError(b, json.NewDecoder(answer.Body).Decode(&kept))
	with := func(path, more string) question {
		return question{method: "POST", path: path, body: fmt.Appendf(nil, `{"chart":%s%s}`, kept.Chart, more)}
	}
	for _, path := range []string{"/api/charts", "/api/charts/1", "/api/licks", "/api/player", "/api/choices", "/api/practice/pictures", "/"} {
		short = append(short, question{method: "GET", path: path})
	}
	short = append(short,
		with("/api/compute/chart/map", ""), with("/api/compute/chord", `,"chord":"C7","next":"F7","position":"E-7"`), with("/api/compute/change", `,"change":7680`),
		with("/api/compute/change/path", ""), with("/api/licks/find", ""), with("/api/compute/band/performance", `,"from":1,"bars":12,"countIn":1`),
	)
	plan = with("/api/compute/solo", `,"plan":{"seed":7}`)
	plan.plan = true
	return short, plan
}

func report(b *testing.B, all []took) {
	b.Helper()
	times := map[bool][]float64{}
	wrong := map[string]int{}
	for _, t := range all {
		if t.wrong != "" {
			wrong[t.wrong]++
			continue
		}
		times[t.plan] = append(times[t.plan], float64(t.time.Microseconds())/1000)
	}
	for plan, name := range map[bool]string{false: "short", true: "plan"} {
		if of := times[plan]; len(of) > 0 {
			sort.Float64s(of)
			b.ReportMetric(of[len(of)/2], name+"-median-ms")
			b.ReportMetric(of[len(of)*99/100], name+"-p99-ms")
		}
	}
	of := map[string][]float64{}
	for _, t := range all {
		of[t.path] = append(of[t.path], float64(t.time.Microseconds())/1000)
	}
	for path, times := range of {
		sort.Float64s(times)
		b.Logf("%-32s median %6.1f ms, p99 %6.1f, longest %6.1f of %d", path, times[len(times)/2], times[len(times)*99/100], times[len(times)-1], len(times))
	}
	b.ReportMetric(float64(len(all)), "requests")
	b.ReportMetric(float64(len(wrong)), "kinds-of-errors")
	for what, count := range wrong {
		b.Logf("%d times %s", count, what)
	}
}

// BenchmarkLoad asks 200 questions a second, evenly, two plans a second among them.
func BenchmarkLoad(b *testing.B) {
	s := demo(b)
	short, plan := questions(b, s)
	client := &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: 64}, Timeout: 30 * time.Second}
	time.Sleep(3 * time.Second) // a start makes a backup and tidies up
	for b.Loop() {
		count := 200 * *loadSeconds
		all := make([]took, count)
		var waiting sync.WaitGroup
		ticks := time.NewTicker(5 * time.Millisecond)
		for n := range count {
			<-ticks.C
			q := short[n%len(short)]
			if n%100 == 99 {
				q = plan
			}
			waiting.Go(func() { all[n] = q.ask(client, s.base) })
		}
		ticks.Stop()
		waiting.Wait()
		report(b, all)
	}
}

// BenchmarkWriters has 150 writers at once keep twenty things each.
func BenchmarkWriters(b *testing.B) {
	s := demo(b)
	answer, err := http.Get(s.base + "/api/licks")
	require.NoError(b, err)
	kept := []struct {
		Lick json.RawMessage `json:"lick"`
	}{}
	require.NoError(b, json.NewDecoder(answer.Body).Decode(&kept))
	require.NoError(b, answer.Body.Close())
	client := &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: 200}, Timeout: time.Minute}
	for b.Loop() {
		const writers, each = 150, 20
		all := make([]took, writers*each)
		var waiting sync.WaitGroup
		for w := range writers {
			waiting.Go(func() {
				for n := range each {
					all[w*each+n] = question{method: "POST", path: "/api/licks", body: kept[0].Lick}.ask(client, s.base)
				}
			})
		}
		waiting.Wait()
		report(b, all)
	}
}
