package main

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestNumbersAreReadAsTheyWereWritten(t *testing.T) {
	for _, v := range []int64{0, 1, -1, 63, 64, -64, -65, 127, 128, 1 << 20, -1 << 40, 1<<63 - 1, -1 << 63} {
		assert.Equal(t, v, (&reader{b: appendS(nil, v)}).s())
		if v >= 0 {
			assert.Equal(t, uint64(v), (&reader{b: appendU(nil, uint64(v))}).u())
		}
	}
}

func TestWhatIsNoModuleIsRefused(t *testing.T) {
	all := func(string) bool { return true }
	_, _, err := reshape([]byte("RIFF and so on"), all, false)
	assert.ErrorContains(t, err, "no WebAssembly module")
	_, _, err = reshape([]byte("\x00asm\x01\x00\x00\x00\x0a\x7f\x01"), all, false)
	assert.ErrorContains(t, err, "ends too early")
	from := filepath.Join(t.TempDir(), "empty.wasm")
	require.NoError(t, os.WriteFile(from, []byte("\x00asm\x01\x00\x00\x00"), 0o600))
	assert.ErrorContains(t, run(from, from+".out", []string{""}, false), "no function could be reshaped")
}

// A loop with two entries cannot be written as nested loops: it must stay as it was.
func TestATwofoldEntryIsLeftAlone(t *testing.T) {
	_, ok := structure(&flow{blocks: []block{
		{end: chooses, next: 1, other: 2}, {end: goesTo, next: 2}, {end: chooses, next: 1, other: 3}, {end: leaves},
	}})
	assert.False(t, ok)
}

// Two ways that meet: one block around them, left by the first way and ended by the second.
func TestWaysMeetAfterABlock(t *testing.T) {
	code, ok := structure(&flow{blocks: []block{
		{end: chooses, next: 1, other: 2}, {end: goesTo, next: 3}, {end: goesTo, next: 3}, {code: []byte{opReturn}, end: leaves},
	}})
	require.True(t, ok)
	assert.Equal(t, []byte{opBlock, voidType, opIf, voidType, opBr, 1, opElse, opBr, 1, opEnd, opUnreachable, opEnd, opReturn}, code)
}

// The same program before and after, all of it reshaped, with its runtime.
func TestAProgramRunsAsBefore(t *testing.T) {
	if _, err := exec.LookPath("node"); err != nil {
		t.Skip("needs Node.js")
	}
	dir := t.TempDir()
	plain, shaped := filepath.Join(dir, "plain.wasm"), filepath.Join(dir, "shaped.wasm")
	build := exec.Command("go", "build", "-o", plain, "./testdata/shapes")
	build.Env = append(os.Environ(), "GOOS=js", "GOARCH=wasm")
	out, err := build.CombinedOutput()
	require.NoError(t, err, string(out))
	root, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(t, err)
	play := func(module string) string {
		runner := filepath.Join(strings.TrimSpace(string(root)), "lib", "wasm", "wasm_exec_node.js")
		out, err := exec.Command("node", "--stack-size=8192", runner, module).CombinedOutput()
		require.NoError(t, err, string(out))
		return string(out)
	}
	before := play(plain)
	assert.Contains(t, before, "caught: runtime error: index out of range")
	for _, in := range []string{"main.", "main.,runtime.,sync.,fmt.,strconv.,internal"} {
		require.NoError(t, run(plain, shaped, strings.Split(in, ","), false))
		assert.Equal(t, before, play(shaped), in)
	}
	module, err := os.ReadFile(plain)
	require.NoError(t, err)
	_, n, err := reshape(module, func(name string) bool { return strings.HasPrefix(name, "main.") }, false)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, n, 6, "of its functions with loops")
}
