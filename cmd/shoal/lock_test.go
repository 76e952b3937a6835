package main

import (
	"context"
	"io"
	"net"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// A second start on a folder, or one refused for its port, touches nothing of what the first is at.
func TestAFolderBelongsToOneProcess(t *testing.T) {
	dir := t.TempDir()
	ctx, end := context.WithCancel(t.Context())
	said, out := io.Pipe()
	gone := make(chan error, 1)
	go func() { gone <- serve(ctx, out, place{addr: "127.0.0.1:0", data: dir}, false, false) }()
	line := make([]byte, 200)
	_, err := said.Read(line)
	require.NoError(t, err)
	for _, name := range []string{"tmp/upload-1", "audio/half.partial"} {
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte("under way"), 0o600))
	}
	there := func() {
		t.Helper()
		require.FileExists(t, filepath.Join(dir, "tmp/upload-1"))
		require.FileExists(t, filepath.Join(dir, "audio/half.partial"))
	}
	err = serve(t.Context(), io.Discard, place{addr: "127.0.0.1:0", data: dir}, false, false)
	require.ErrorContains(t, err, "is in use by the Shoal at http://127.0.0.1:")
	require.ErrorContains(t, err, "--data")
	there()
	end()
	select {
	case <-gone:
	case <-time.After(20 * time.Second):
		t.Fatal("it did not end")
	}
	// the port is another's: what an interrupted start left stays for the next one
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer taken.Close()
	err = serve(t.Context(), io.Discard, place{addr: taken.Addr().String(), data: dir}, false, false)
	require.ErrorContains(t, err, "choose another port")
	there()
}
