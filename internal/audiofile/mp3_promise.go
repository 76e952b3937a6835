package audiofile

import (
	"bytes"
	"encoding/binary"
	"io"
)

// promised is how many frames an MP3 file says that it holds, by the header that encoders put into its first frame; 0: it says
// nothing. The decoder does not look: of a file that is cut short it gives what is there.
// Source: ISO 11172-3 (frame header and side information); G. Xing's header, which all encoders write.
func promised(r io.ReadSeeker) int64 {
	defer func() { _, _ = r.Seek(0, io.SeekStart) }()
	at := int64(0)
	var tag [10]byte
	if _, err := io.ReadFull(r, tag[:]); err != nil {
		return 0
	}
	if bytes.Equal(tag[:3], []byte("ID3")) { // ID3v2: its length in four times seven bits
		at = 10 + int64(tag[6]&0x7f)<<21 + int64(tag[7]&0x7f)<<14 + int64(tag[8]&0x7f)<<7 + int64(tag[9]&0x7f)
	}
	if _, err := r.Seek(at, io.SeekStart); err != nil {
		return 0
	}
	head := make([]byte, 4096)
	n, _ := io.ReadFull(r, head)
	head = head[:n]
	for len(head) > 4 && (head[0] != 0xff || head[1]&0xe0 != 0xe0) {
		head = head[1:]
	}
	if len(head) < 64 {
		return 0
	}
	first := head[1]&0x18 == 0x18 // MPEG 1, not 2
	mono := head[3]&0xc0 == 0xc0
	side, perFrame := 17, int64(576)
	switch {
	case first && mono:
		side, perFrame = 17, 1152
	case first:
		side, perFrame = 32, 1152
	case mono:
		side = 9
	}
	x := head[4+side:]
	if len(x) < 12 || !bytes.Equal(x[:4], []byte("Xing")) && !bytes.Equal(x[:4], []byte("Info")) {
		return 0
	}
	if binary.BigEndian.Uint32(x[4:])&1 == 0 {
		return 0
	}
	return int64(binary.BigEndian.Uint32(x[8:])) * perFrame
}
